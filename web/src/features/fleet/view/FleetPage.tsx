import { Box, Flex, Input } from '@chakra-ui/react'
import { X } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { Button } from '../../../shared/Button'
import { count } from '../../../shared/format'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import { isShown, outcomeWords } from '../../../shared/outcomes'
import { useTitles } from '../../reach'
import type { Counts, Filter } from '../api/fleet'
import { useFleetCounts } from '../api/fleet'
import { useFilter } from '../model/useFilter'
import { DeviceList } from './DeviceList'

/** All devices, and what each is doing. */
export function FleetPage() {
  const [filter, change] = useFilter()
  const counts = useFleetCounts()
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => {
    document.title = 'Fleet · Rivo'
  }, [])
  useKeys('The fleet', [{ key: '/', says: 'Type to narrow the list', act: () => field.current?.focus() }])
  return (
    <Flex direction="column" h="100%" px="18px" pt="12px" pb="16px" gap="12px">
      <Flex align="center" gap="18px" minH="34px" wrap="wrap">
        <Box as="h1" fontSize="20px" fontWeight="700">
          Fleet
        </Box>
        <Flex position="relative" align="center">
          <Input
            ref={field}
            value={filter.q ?? ''}
            onChange={event => change({ q: event.target.value })}
            placeholder="Name, person or OU"
            aria-label="Narrow the list by name, person or OU"
            w="260px"
            h="32px"
            borderColor="line"
            bg="panel"
            pr="34px"
          />
          <Box position="absolute" right="8px">
            <Kbd>/</Kbd>
          </Box>
        </Flex>
        {counts.data !== undefined && <States counts={counts.data} filter={filter} change={change} />}
      </Flex>
      <Narrowed filter={filter} change={change} />
      <DeviceList filter={filter} />
    </Flex>
  )
}

interface PartProps {
  filter: Filter
  change: (part: Partial<Filter>) => void
}

function States({ counts, filter, change }: PartProps & { counts: Counts }) {
  const states = [
    { id: undefined, words: 'all', n: counts.devices },
    { id: 'under-way', words: 'at work', n: counts.underWay },
    { id: 'failed', words: 'failed', n: counts.failed },
    { id: 'waiting', words: 'waiting', n: counts.waiting },
    { id: 'idle', words: 'nothing under way', n: counts.idle },
    { id: 'not-seen-lately', words: 'not seen lately', n: counts.notSeenLately },
    { id: 'never', words: 'never called in', n: counts.never },
  ]
  return (
    <Flex gap="6px" flex="1" justify="flex-end" role="group" aria-label="What they are doing">
      {states.map(state => (
        <Button
          key={state.words}
          variant={filter.state === state.id ? 'chosen' : 'plain'}
          aria-pressed={filter.state === state.id}
          onClick={() => change({ state: state.id })}
          fontWeight="400"
        >
          <b>{count(state.n)}</b> {state.words}
        </Button>
      ))}
    </Flex>
  )
}

/** What else the address narrows the list to, each part with a way out. */
function Narrowed({ filter, change }: PartProps) {
  const titles = useTitles()
  const parts: { words: string; without: Partial<Filter> }[] = []
  if (filter.title !== undefined && filter.outcome !== undefined) {
    const name = titles.data?.find(title => title.id === filter.title)?.name ?? filter.title
    const outcome = isShown(filter.outcome) ? outcomeWords(filter.outcome).counted : filter.outcome
    parts.push({ words: `${name}: ${outcome}`, without: { title: undefined, outcome: undefined } })
  }
  if (filter.ou !== undefined) {
    parts.push({ words: 'in one OU and below', without: { ou: undefined } })
  }
  if (parts.length === 0) {
    return null
  }
  return (
    <Flex gap="8px" align="center" color="ink2">
      Only
      {parts.map(part => (
        <Button
          key={part.words}
          variant="chosen"
          h="26px"
          onClick={() => change(part.without)}
          aria-label={`${part.words}: show the others too`}
        >
          {part.words} <X size={13} aria-hidden="true" />
        </Button>
      ))}
    </Flex>
  )
}
