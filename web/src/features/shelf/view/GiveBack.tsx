import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { sentence } from '../../../shared/api'
import { announce } from '../../../shared/ui/Announcer'
import { Button } from '../../../shared/ui/Button'
import { useGiveBack } from '../api/shelf'
import { useSpeaker } from '../state/useTexts'

interface Props {
  name: string
  device: string
  title: string
  /** Whether it has arrived: then it is removed, and one is asked first. */
  isThere: boolean
}

/** Gives back what one has taken, or stops it on its way. */
export function GiveBack({ name, device, title, isThere }: Props) {
  const { say } = useSpeaker()
  const giveBack = useGiveBack()
  const [asks, setAsks] = useState(false)
  const back = () =>
    giveBack.mutate(
      { device, title },
      {
        onSuccess: () => {
          setAsks(false)
          announce(say('saidGivenBack', { name }))
        },
      },
    )
  return (
    <Box>
      {asks ? (
        <Flex gap="2" align="center" wrap="wrap">
          <Box textStyle="compact" fontWeight="600">
            {say('giveBackSure', { name })}
          </Box>
          <Button size="sm" variant="chosen" loading={giveBack.isPending} onClick={back}>
            {say('giveBackYes')}
          </Button>
          <Button size="sm" onClick={() => setAsks(false)}>
            {say('giveBackNo')}
          </Button>
        </Flex>
      ) : (
        <Button
          variant="text"
          size="inline"
          loading={giveBack.isPending}
          onClick={isThere ? () => setAsks(true) : back}
        >
          {say(isThere ? 'giveBack' : 'stop')}
          <Box as="span" srOnly>
            {' '}
            {name}
          </Box>
        </Button>
      )}
      <Box role="alert" color="trouble" textStyle="second">
        {giveBack.isError && sentence(giveBack.error)}
      </Box>
    </Box>
  )
}
