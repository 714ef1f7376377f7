import { Box, Flex } from '@chakra-ui/react'
import { X } from 'lucide-react'
import { memo, useRef } from 'react'
import { count } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { isShown, outcomeWords } from '../../../shared/outcomes'
import { Button } from '../../../shared/ui/Button'
import { Kbd } from '../../../shared/ui/Kbd'
import { Page } from '../../../shared/ui/Page'
import { PageHead } from '../../../shared/ui/PageHead'
import { SearchField } from '../../../shared/ui/TextField'
import { useAddressState } from '../../../shared/useAddressState'
import { useTitles } from '../../reach'
import { stateWords, useStates } from '../../standing'
import type { Counts, Filter } from '../api/fleet'
import { useFleetCounts } from '../api/fleet'
import { FLEET_ADDRESS } from '../model/fleetAddress'
import { DeviceList } from './DeviceList'

/** All devices, and what each is doing. */
export function FleetPage() {
  const [filter, change] = useAddressState(FLEET_ADDRESS)
  const counts = useFleetCounts()
  const field = useRef<HTMLInputElement>(null)
  useKeys('The fleet', [{ key: '/', says: 'Type to narrow the list', act: () => field.current?.focus() }])
  return (
    <Page>
      <PageHead heading="Fleet">
        <Flex position="relative" align="center">
          <SearchField
            ref={field}
            label="Narrow the list by name, person or OU"
            placeholder="Name, person or OU"
            value={filter.q}
            onChange={q => change({ q })}
            w="260px"
            pr="9"
          />
          <Box position="absolute" right="2">
            <Kbd>/</Kbd>
          </Box>
        </Flex>
        {counts.data !== undefined && <States counts={counts.data} state={filter.state} change={change} />}
      </PageHead>
      <Narrowed filter={filter} change={change} />
      <DeviceList filter={filter} change={change} />
    </Page>
  )
}

interface PartProps {
  filter: Filter
  change: (part: Partial<Filter>) => void
}

interface StatesProps extends Pick<Filter, 'state'> {
  counts: Counts
  change: PartProps['change']
}

/** Not drawn anew with each letter by which the list is narrowed. */
const States = memo(function States({ counts, state: chosen, change }: StatesProps) {
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
    <Flex gap="1.5" flex="1" justify="flex-end" wrap="wrap" role="group" aria-label="What they are doing">
      {states.map(state => (
        <Button
          key={state.words}
          variant={chosen === state.id ? 'chosen' : 'plain'}
          aria-pressed={chosen === state.id}
          onClick={() => change({ state: state.id })}
          fontWeight="400"
        >
          <span>
            <b>{count(state.n)}</b> {state.words}
          </span>
        </Button>
      ))}
    </Flex>
  )
})

/** What else the address narrows the list to, each part with a way out. */
function Narrowed({ filter, change }: PartProps) {
  const titles = useTitles()
  const states = useStates(filter.stands === undefined ? undefined : filter.title)
  const parts: { words: string; without: Partial<Filter> }[] = []
  if (filter.title !== undefined && filter.outcome !== undefined) {
    const name = titles.data?.find(title => title.id === filter.title)?.name ?? filter.title
    const outcome = isShown(filter.outcome) ? outcomeWords(filter.outcome).counted : filter.outcome
    parts.push({ words: `${name}: ${outcome}`, without: { title: undefined, outcome: undefined } })
  }
  if (filter.title !== undefined && filter.stands !== undefined) {
    const name = titles.data?.find(title => title.id === filter.title)?.name ?? filter.title
    parts.push({
      words: `${name}: ${stateWords(states.data?.states, filter.stands)}`,
      without: { title: undefined, stands: undefined },
    })
  }
  if (filter.ou !== undefined) {
    parts.push({ words: 'in one OU and below', without: { ou: undefined } })
  }
  if (parts.length === 0) {
    return null
  }
  return (
    <Flex gap="2" align="center" color="ink2">
      Only
      {parts.map(part => (
        <Button
          key={part.words}
          variant="chosen"
          size="sm"
          onClick={() => change(part.without)}
          aria-label={`${part.words}: show the others too`}
        >
          {part.words} <X size={13} aria-hidden="true" />
        </Button>
      ))}
    </Flex>
  )
}
