import { Box, Flex } from '@chakra-ui/react'
import { side } from '../../../shared/ui/Page'
import { Panel, PanelPart } from '../../../shared/ui/Panel'
import { Check, CircleDot, Clock, Play, X } from 'lucide-react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { between, fullInstant, some, stretch, timeOfDay } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import { RungList } from '../../reach'
import type { TitleLine, TitleWhy } from '../api/fleet'
import { useTitleWhy } from '../api/fleet'

/** Why the device gets what it gets of one title, and what it is doing about it. */
export function WhyPanel({
  device,
  title,
  person,
  expected,
}: {
  device: string
  title: string | undefined
  /** Whose, of a title that is installed for each person. */
  person: string | undefined
  /** When it is expected to be as it shall; undefined where nobody can say. */
  expected: TitleLine['expected']
}) {
  const why = useTitleWhy(device, title, person)
  return (
    <Panel aria-label="Why" {...side('432px')} overflowY="auto" padded>
      {failure(why) !== undefined && <Box color="trouble">{sentence(why.error)}</Box>}
      {why.data !== undefined && title !== undefined && (
        <Why key={`${title} ${person}`} why={why.data} expected={expected} />
      )}
    </Panel>
  )
}

function Why({ why, expected }: { why: TitleWhy; expected: TitleLine['expected'] }) {
  const now = useNow()
  const reaching = why.rungs.filter(rung => rung.verdict !== 'no-reach')
  const others = why.rungs.length - reaching.length
  const [all, setAll] = useState(false)
  return (
    <>
      <Box as="h2" textStyle="heading">
        Why {why.titleName}
        {why.release !== undefined && ` ${why.release}`}
        {why.personName !== undefined && ` for ${why.personName}`}?
      </Box>
      <Box color="ink2" textStyle="compact" mb="2">
        {why.sentence}
      </Box>
      <RungList title={why.title} rungs={all ? why.rungs : reaching} />
      {others > 0 && (
        <Button variant="text" size="xs" onClick={() => setAll(!all)}>
          {all ? 'Only those that reach here' : `${some(others, 'assignment')} elsewhere`}
        </Button>
      )}
      {expected !== undefined && (
        <PanelPart heading="When">
          <Box textStyle="compact" title="By its call-ins, its windows, and how long this title usually takes">
            expected {between(expected.from, expected.to, now)}
          </Box>
        </PanelPart>
      )}
      <PanelPart heading="Which release">
        {why.releases.map(release => (
          <Flex
            key={release.version}
            justify="space-between"
            gap="3"
            textStyle="compact"
            py="0.5"
            color={release.chosen ? 'ink' : 'ink2'}
          >
            <Box pl="4.5" fontWeight={release.chosen ? '700' : '400'}>
              {release.version}
            </Box>
            <Box color="ink2">{release.note}</Box>
          </Flex>
        ))}
      </PanelPart>
      {why.steps.length > 0 && (
        <PanelPart heading="What the device is doing">
          <Steps steps={why.steps} />
        </PanelPart>
      )}
      <Flex gap="2" mt="3.5" align="center">
        <Log why={why} />
        <Box css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
          <Link to={`/reach/${encodeURIComponent(why.title)}`}>Show its reach</Link>
        </Box>
      </Flex>
    </>
  )
}

const SIGNS: Record<TitleWhy['steps'][number]['state'], ReactNode> = {
  done: <Check size={13} />,
  running: <Play size={11} fill="currentColor" />,
  waiting: <Clock size={12} />,
  failed: <X size={13} />,
  ahead: null,
}

function Steps({ steps }: { steps: TitleWhy['steps'] }) {
  return (
    <Box as="ol" listStyleType="none">
      {steps.map(step => (
        <Flex
          as="li"
          key={step.text}
          gap="2"
          textStyle="compact"
          py="0.5"
          color={step.state === 'failed' ? 'trouble' : step.state === 'running' ? 'ink' : 'ink2'}
          fontWeight={step.state === 'running' ? '700' : '400'}
        >
          <Box w="14px" pt="1" aria-hidden="true">
            {SIGNS[step.state]}
          </Box>
          <Box flex="1">
            {step.text}
            {step.state !== 'ahead' && step.state !== 'done' && (
              <Box as="span" srOnly>
                {' '}
                ({step.state})
              </Box>
            )}
          </Box>
          <Box fontWeight="400">
            {step.at !== undefined && step.state !== 'ahead' ? (
              <span title={fullInstant(step.at)}>{timeOfDay(step.at)}</span>
            ) : (
              step.limitSeconds !== undefined && `at most ${stretch(step.limitSeconds)}`
            )}
          </Box>
        </Flex>
      ))}
    </Box>
  )
}

function Log({ why }: { why: TitleWhy }) {
  const [open, setOpen] = useState(false)
  if (why.log.length === 0) {
    return <Box color="ink3">The device has said nothing of this title.</Box>
  }
  return (
    <Box flex="1">
      <Button onClick={() => setOpen(!open)} aria-expanded={open}>
        <CircleDot size={13} aria-hidden="true" /> {open ? 'Close the log' : 'Whole log'}
      </Button>
      {open && (
        <Box as="ol" listStyleType="none" mt="2" textStyle="second">
          {why.log.map((line, i) => (
            <Flex as="li" key={`${line.at} ${i}`} gap="2.5" py="0.5">
              <Box color="ink3" title={fullInstant(line.at)}>
                {timeOfDay(line.at)}
              </Box>
              <Box color={line.state === 'failed' ? 'trouble' : 'ink2'}>{line.message}</Box>
            </Flex>
          ))}
        </Box>
      )}
    </Box>
  )
}
