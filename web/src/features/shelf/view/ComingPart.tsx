import { Box, Flex } from '@chakra-ui/react'
import { Diamond } from '../../../shared/ui/Diamond'
import { Progress } from '../../../shared/ui/Progress'
import { sentence } from '../../../shared/api'
import { announce } from '../../../shared/ui/Announcer'
import { Button } from '../../../shared/ui/Button'
import type { Coming } from '../api/shelf'
import { useSooner } from '../api/shelf'
import { waiting } from '../model/waiting'
import { useSpeaker } from '../state/useTexts'
import { Heading } from './Heading'

/** What is going to change on the computer without one's asking. */
export function ComingPart({ coming, device }: { coming: readonly Coming[]; device: string }) {
  const { say } = useSpeaker()
  if (coming.length === 0) {
    return null
  }
  return (
    <Box as="section" aria-label={say('coming')}>
      <Heading words={say('coming')} n={coming.length} />
      <Box as="ul" listStyleType="none" borderWidth="1px" borderColor="line" borderRadius="lg" bg="hover">
        {coming.map((one, i) => (
          <Line key={one.title} one={one} device={device} first={i === 0} />
        ))}
      </Box>
    </Box>
  )
}

function Line({ one, device, first }: { one: Coming; device: string; first: boolean }) {
  const sooner = useSooner()
  const speaker = useSpeaker()
  const { say, day } = speaker
  const when =
    one.by === undefined
      ? say(one.leaves ? 'leaves' : 'comes')
      : say(one.leaves ? 'leavesBy' : 'comesBy', { date: day(one.by, true) })
  const why =
    one.percent !== undefined
      ? say('state.under-way', { percent: one.percent })
      : one.waitsFor === undefined || one.leaves
        ? ''
        : waiting(one, speaker)
  return (
    <Flex as="li" gap="3.5" px="4" py="2.5" align="center" borderTopWidth={first ? '0' : '1px'} borderColor="line">
      <Diamond kind={one.leaves ? 'uninstall' : 'required'} size={14} />
      <Box flex="1" minW="0">
        <Box fontWeight="600">
          {one.name} {one.version}
        </Box>
        <Box color="ink2" textStyle="second">
          {[when, why].filter(part => part !== '').join(' · ')}
        </Box>
        {one.percent !== undefined && (
          <Box mt="1.5">
            <Progress percent={one.percent} label={one.name} width="min(100%, 320px)" />
          </Box>
        )}
        <Box role="alert" color="trouble" textStyle="second">
          {sooner.isError && sentence(sooner.error)}
        </Box>
      </Box>
      {one.mayBeSooner && (
        <Button
          size="sm"
          loading={sooner.isPending}
          onClick={() =>
            sooner.mutate(
              { device, title: one.title },
              { onSuccess: () => announce(say('saidSooner', { name: one.name })) },
            )
          }
        >
          {say('sooner')}
          <Box as="span" srOnly>
            {' '}
            {one.name}
          </Box>
        </Button>
      )}
    </Flex>
  )
}
