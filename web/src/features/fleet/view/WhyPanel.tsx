import { Box, Flex } from '@chakra-ui/react'
import { Check, CircleDot, Clock, Play, X } from 'lucide-react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { fullInstant, some, stretch, timeOfDay } from '../../../shared/format'
import { RungList } from '../../reach'
import type { TitleWhy } from '../api/fleet'
import { useTitleWhy } from '../api/fleet'

/** Why the device gets what it gets of one title, and what it is doing about it. */
export function WhyPanel({ device, title }: { device: string; title: string | undefined }) {
  const why = useTitleWhy(device, title)
  return (
    <Box
      as="section"
      aria-label="Why"
      w="432px"
      flexShrink="0"
      h="100%"
      overflowY="auto"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      p="14px 18px"
    >
      {failure(why) !== undefined && <Box color="trouble">{sentence(why.error)}</Box>}
      {why.data !== undefined && title !== undefined && <Why key={title} why={why.data} />}
    </Box>
  )
}

function Why({ why }: { why: TitleWhy }) {
  const reaching = why.rungs.filter(rung => rung.verdict !== 'no-reach')
  const others = why.rungs.length - reaching.length
  const [all, setAll] = useState(false)
  return (
    <>
      <Box as="h2" fontSize="17px" fontWeight="700">
        Why {why.titleName}
        {why.release !== undefined && ` ${why.release}`}?
      </Box>
      <Box color="ink2" fontSize="13px" mb="8px">
        {why.sentence}
      </Box>
      <RungList rungs={all ? why.rungs : reaching} />
      {others > 0 && (
        <Button variant="text" h="24px" onClick={() => setAll(!all)}>
          {all ? 'Only those that reach here' : `${some(others, 'assignment')} elsewhere`}
        </Button>
      )}
      <Part heading="Which release">
        {why.releases.map(release => (
          <Flex
            key={release.version}
            justify="space-between"
            gap="12px"
            fontSize="13px"
            py="2px"
            color={release.chosen ? 'ink' : 'ink2'}
          >
            <Box pl="18px" fontWeight={release.chosen ? '700' : '400'}>
              {release.version}
            </Box>
            <Box color="ink2">{release.note}</Box>
          </Flex>
        ))}
      </Part>
      {why.steps.length > 0 && (
        <Part heading="What the device is doing">
          <Steps steps={why.steps} />
        </Part>
      )}
      <Flex gap="8px" mt="14px" align="center">
        <Log why={why} />
        <Box css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
          <Link to={`/reach/${encodeURIComponent(why.title)}`}>Show its reach</Link>
        </Box>
      </Flex>
    </>
  )
}

function Part({ heading, children }: { heading: string; children: ReactNode }) {
  return (
    <Box borderTopWidth="1px" borderColor="line" mt="12px" pt="10px">
      <Box as="h3" fontWeight="700" mb="3px">
        {heading}
      </Box>
      {children}
    </Box>
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
          gap="8px"
          fontSize="13px"
          py="2px"
          color={step.state === 'failed' ? 'trouble' : step.state === 'running' ? 'ink' : 'ink2'}
          fontWeight={step.state === 'running' ? '700' : '400'}
        >
          <Box w="14px" pt="3px" aria-hidden="true">
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
        <Box as="ol" listStyleType="none" mt="8px" fontSize="12.3px">
          {why.log.map((line, i) => (
            <Flex as="li" key={`${line.at} ${i}`} gap="10px" py="2px">
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
