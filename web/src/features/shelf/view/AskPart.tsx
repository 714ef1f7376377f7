import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { Tick } from '../../../shared/ui/fields'
import { TextField } from '../../../shared/ui/TextField'
import type { Offer, Taking } from '../api/shelf'
import type { Chosen } from '../model/choices'
import { useSpeaker } from '../state/useTexts'
import { ChoiceField } from './ChoiceField'

interface Props {
  offer: Offer
  busy: boolean
  onTake: (taking: Taking) => void
  onCancel: () => void
}

/** In characters. */
const LONGEST = 500

/** What has to be said before something is taken: what one needs it for, what one chooses of it, and that one accepts its licence. */
export function AskPart({ offer, busy, onTake, onCancel }: Props) {
  const { say } = useSpeaker()
  const [why, setWhy] = useState('')
  const [accepts, setAccepts] = useState(false)
  const [chosen, setChosen] = useState<Chosen>({})
  const [tried, setTried] = useState(false)
  const field = useRef<HTMLInputElement & HTMLTextAreaElement>(null)
  useEffect(() => field.current?.focus(), [])
  const { approval = false, licence, licenceHash, choices = [] } = offer.asks ?? {}
  const lacksWhy = approval && why.trim() === ''
  const lacksLicence = licence !== undefined && !accepts
  const take = () => {
    setTried(true)
    if (!lacksWhy && !lacksLicence) {
      onTake({
        ...(approval && { why: why.trim() }),
        ...(licence !== undefined && { licence: licenceHash }),
        choices: chosen,
      })
    }
  }
  return (
    <Flex
      as="form"
      direction="column"
      gap="2.5"
      mt="1"
      maxW="560px"
      onSubmit={event => {
        event.preventDefault()
        take()
      }}
    >
      {approval && (
        <TextField
          label={say('why')}
          hint={say('whyHint')}
          rows={2}
          value={why}
          onChange={text => setWhy(text.slice(0, LONGEST))}
          problem={tried && lacksWhy ? say('needsWhy') : undefined}
          ref={field}
        />
      )}
      {choices.map(choice => (
        <ChoiceField key={choice.id} choice={choice} chosen={chosen} onChange={setChosen} />
      ))}
      {licence !== undefined && (
        <Box>
          <Box fontWeight="600" textStyle="compact" mb="1">
            {say('licence')}
          </Box>
          <Box
            tabIndex={0}
            role="region"
            aria-label={say('licence')}
            maxH="140px"
            overflowY="auto"
            whiteSpace="pre-wrap"
            borderWidth="1px"
            borderColor="line"
            borderRadius="md"
            p="2.5"
            mb="2"
            textStyle="compact"
          >
            {licence}
          </Box>
          <Tick label={say('licenceAccept')} on={accepts} onChange={setAccepts} />
          <Box role="alert" color="trouble" textStyle="second">
            {tried && lacksLicence && say('needsLicence')}
          </Box>
        </Box>
      )}
      <Flex gap="2" wrap="wrap">
        <Button size="sm" variant="chosen" type="submit" loading={busy}>
          {say(approval ? 'ask' : 'get')}
        </Button>
        <Button size="sm" onClick={onCancel}>
          {say('cancel')}
        </Button>
      </Flex>
    </Flex>
  )
}
