import { Box, Flex } from '@chakra-ui/react'
import { Diamond } from '../../../shared/ui/Diamond'
import type { Installed } from '../api/shelf'
import { useSpeaker } from '../state/useTexts'
import { GiveBack } from './GiveBack'
import { Heading } from './Heading'

const KIND = { required: 'required', taken: 'available', needed: 'required', found: 'none' } as const

/** What is installed, and through whom. */
export function HerePart({ here, device }: { here: readonly Installed[]; device: string }) {
  const { say } = useSpeaker()
  return (
    <Box as="section" aria-label={say('here')}>
      <Heading words={say('here')} n={here.length} />
      {here.length === 0 && <Box color="ink2">{say('hereNone')}</Box>}
      <Box as="ul" listStyleType="none">
        {here.map(one => (
          <Line key={`${one.title} ${one.forPerson}`} one={one} device={device} />
        ))}
      </Box>
    </Box>
  )
}

function Line({ one, device }: { one: Installed; device: string }) {
  const { say, day } = useSpeaker()
  const why =
    one.why === 'needed'
      ? say('why.needed', { name: one.neededBy ?? '' })
      : one.why === 'taken'
        ? say('why.taken', { date: one.takenAt === undefined ? '' : day(one.takenAt) })
        : say(`why.${one.why}`)
  return (
    <Flex as="li" gap="3.5" py="2" align="baseline" borderTopWidth="1px" borderColor="line">
      <Diamond kind={KIND[one.why]} size={13} />
      <Flex flex="1" minW="0" columnGap="3.5" wrap="wrap" justify="space-between">
        <Box minW="40">
          <b>{one.name}</b>{' '}
          <Box as="span" color="ink2">
            {one.version}
          </Box>
        </Box>
        <Flex color="ink2" textStyle="compact" columnGap="3.5" wrap="wrap" align="baseline">
          {[why, one.forPerson ? say('forYouAlone') : ''].filter(part => part !== '').join(' · ')}
          {one.why === 'taken' && <GiveBack name={one.name} device={device} title={one.title} isThere />}
        </Flex>
      </Flex>
    </Flex>
  )
}
