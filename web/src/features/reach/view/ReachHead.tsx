import { Box, Flex } from '@chakra-ui/react'
import { memo, useCallback } from 'react'
import { useNavigate } from 'react-router'
import { changedAddress } from '../../../shared/address'
import { withQuery } from '../../../shared/api'
import { Diamond } from '../../../shared/ui/Diamond'
import { count } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import type { Shown } from '../../../shared/outcomes'
import { outcomeWords } from '../../../shared/outcomes'
import { PageHeading } from '../../../shared/ui/PageHead'
import { Segments } from '../../../shared/ui/Segments'
import { useAddressState } from '../../../shared/useAddressState'
import { useSteady } from '../../../shared/useSteady'
import { TitlePicker } from '../../catalogue'
import type { Reach } from '../api/reach'
import { occurring } from '../model/fill'
import { REACH_ADDRESS } from '../model/reachAddress'
import { NowLink } from './NowLink'

const SHOWN_AS = [
  { value: 'map', words: 'Map' },
  { value: 'table', words: 'Table' },
] as const

/** The title one looks at, and the figures for the whole fleet. */
export const ReachHead = memo(function ReachHead({ reach }: { reach: Reach }) {
  const [address, change] = useAddressState(REACH_ADDRESS)
  const navigate = useNavigate()
  useKeys('Reach', [
    {
      key: 't',
      says: address.as === 'table' ? 'Show the map' : 'Show as a table',
      act: () => change({ as: address.as === 'table' ? 'map' : 'table' }),
    },
  ])
  const go = useSteady(
    (title: string) =>
      void navigate(
        `/reach/${encodeURIComponent(title)}?${changedAddress(REACH_ADDRESS, new URLSearchParams(), address)}`,
      ),
  )
  const showAs = useCallback((as: 'map' | 'table') => change({ as }), [change])
  const figures = [...new Set(['required' as const, ...occurring(reach.totals, reach.totalsAfter)])]
  return (
    <Flex align="center" gap="4" minH="9" wrap="wrap">
      <Box>
        <Flex align="baseline" gap="2.5">
          <PageHeading>{reach.titleName}</PageHeading>
          <Box color="ink2">
            {reach.newest === undefined ? 'no release is offered' : `newest offered · ${reach.newest}`}
          </Box>
        </Flex>
      </Box>
      <TitlePicker label="Choose another title" onChoose={go} width="180px" />
      <Segments label="Shown as" value={address.as} choices={SHOWN_AS} onChange={showAs} />
      <Flex flex="1" justify="flex-end" rowGap="0.5" columnGap="5" wrap="wrap">
        {figures.map(kind => (
          <Figure key={kind} reach={reach} outcome={kind} />
        ))}
      </Flex>
    </Flex>
  )
})

/** How many devices it is, with the draft. */
function Figure({ reach, outcome }: { reach: Reach; outcome: Shown }) {
  const now = reach.totals[outcome]
  const n = (reach.totalsAfter ?? reach.totals)[outcome]
  const faint = outcome === 'none' || n === 0
  return (
    <NowLink
      n={n}
      now={now}
      list={withQuery('/fleet', { title: reach.title, outcome })}
      title={outcomeWords(outcome).sentence}
    >
      <Flex align="baseline" gap="2" color={faint ? 'ink3' : 'ink2'}>
        {outcome !== 'none' && (
          <Box alignSelf="center">
            <Diamond kind={outcome} size={13} />
          </Box>
        )}
        <Box textStyle="figure" color={faint ? 'ink3' : 'ink'}>
          {count(n)}
        </Box>
        {outcomeWords(outcome).counted}
      </Flex>
    </NowLink>
  )
}
