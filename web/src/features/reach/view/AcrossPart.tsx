import { Box, Flex } from '@chakra-ui/react'
import { memo, useCallback, useState } from 'react'
import { Link } from 'react-router'
import { bandFill } from '../../../shared/bandFill'
import { count, some } from '../../../shared/format'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { Panel } from '../../../shared/ui/Panel'
import { StackBar } from '../../../shared/ui/StackBar'
import { useAddressState } from '../../../shared/useAddressState'
import { assignAddress } from '../../assign'
import type { Across, Reach } from '../api/reach'
import { REACH_ADDRESS } from '../model/reachAddress'

const FIRST = 3
/** Below the map alone, beside the sheet. */
const FIRST_BESIDE = 2

const KINDS: Record<Across['kind'], string> = {
  'all-devices': 'everyone',
  'all-users': 'everyone',
  group: 'group',
  collection: 'collection',
  device: 'device',
  user: 'person',
}

interface Props {
  reach: Reach
  /** The assignment that is being written, for which there is less room; nothing while none is. */
  writing?: string | undefined
}

/** What lies across the OUs and assigns the title: each with its spread, which lights up on the map. */
export const AcrossPart = memo(function AcrossPart({ reach, writing }: Props) {
  const [all, setAll] = useState(false)
  const [address, change] = useAddressState(REACH_ADDRESS)
  const light = useCallback((target: string | undefined) => change({ lit: target }), [change])
  const first = writing === undefined ? FIRST : FIRST_BESIDE
  // What is being written comes first.
  const across = [...reach.across].sort((a, b) => Number(b.assignment === writing) - Number(a.assignment === writing))
  const shown = all ? across : across.slice(0, first)
  return (
    <Flex
      as="section"
      aria-label="Across the map"
      gap="3"
      wrap="wrap"
      maxH={all ? '220px' : undefined}
      overflowY="auto"
    >
      <Flex
        w={writing === undefined ? '150px' : 'full'}
        direction={writing === undefined ? 'column' : 'row'}
        columnGap="3"
        align="baseline"
      >
        <Box as="h2" fontWeight="700">
          Across the map
        </Box>
        {writing === undefined && (
          <Box color="ink2" textStyle="second">
            groups, collections and people that this title is assigned to
          </Box>
        )}
        {across.length > first && (
          <Button variant="text" size="xs" px="0" onClick={() => setAll(!all)} aria-expanded={all}>
            {all ? 'fewer' : `and ${count(across.length - first)} more`}
          </Button>
        )}
      </Flex>
      {shown.map(one => (
        <Card
          key={`${one.assignment} ${one.target}`}
          title={reach.title}
          one={one}
          lit={address.lit === one.target}
          onLight={light}
        />
      ))}
    </Flex>
  )
})

interface CardProps {
  title: string
  one: Across
  /** Whether it is lit up on the map. */
  lit: boolean
  /** Lights another up, or none. */
  onLight: (target: string | undefined) => void
}

const Card = memo(function Card({ title, one, lit, onLight }: CardProps) {
  return (
    <Panel flex="1" minW="230px" maxW="420px" px="3.5" py="2" {...(lit && { borderColor: 'lagoon' })}>
      <Flex align="center" gap="2" minW="0">
        <Diamond kind={one.intent} size={13} />
        <Box fontWeight="600" truncate css={{ '& a:hover': { textDecoration: 'underline' } }}>
          <Link to={placeOf(one)}>{one.name}</Link>
        </Box>
        <Box color="ink3" textStyle="second" whiteSpace="nowrap">
          {KINDS[one.kind]}
          {one.draft && ' · draft'}
          {one.binding && ' · binding'}
        </Box>
        <Box flex="1" />
        <Box textStyle="second" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
          <Link to={assignAddress({ title, id: one.assignment })}>edit</Link>
        </Box>
      </Flex>
      <Box color="ink2" textStyle="second" truncate>
        {one.follows === 'user'
          ? `${some(one.people, 'person', 'people')} on ${some(one.devices, 'device')}`
          : some(one.devices, 'device')}
        {one.spread.length > 0 && ` · ${one.spread.map(part => `${part.name} ${count(part.devices)}`).join(', ')}`}
      </Box>
      <Flex align="center" gap="2" mt="1">
        <Box flex="1">
          <StackBar
            whole={one.devices}
            words={`It decides for ${count(one.decides)} of ${count(one.devices)}`}
            parts={[{ id: 'decides', n: Math.min(one.decides, one.devices), ...bandFill(one.intent) }]}
          />
        </Box>
        <Button
          variant="text"
          size="xs"
          textStyle="second"
          aria-pressed={lit}
          onClick={() => onLight(lit ? undefined : one.target)}
        >
          {lit ? 'hide' : 'show on the map'}
        </Button>
      </Flex>
    </Panel>
  )
})

/** Where it is looked at by itself. */
function placeOf(one: Across): string {
  const id = encodeURIComponent(one.target.slice(one.target.indexOf(':') + 1))
  return one.kind === 'device'
    ? `/fleet/${id}`
    : one.kind === 'user'
      ? `/people/${id}`
      : `/audiences/${encodeURIComponent(one.target)}`
}
