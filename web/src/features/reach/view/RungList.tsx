import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { Diamond } from '../../../shared/ui/Diamond'
import { date, fullInstant, some } from '../../../shared/format'
import { intentVerb } from '../../../shared/outcomes'
import { useNow } from '../../../shared/useNow'
import { assignAddress } from '../../assign'
import type { Rung } from '../api/reach'

const MINUTE_MS = 60_000

interface Props {
  /** The title that they are of. */
  title: string
  rungs: readonly Rung[]
  /** Whether its figures count people on devices. */
  perPerson?: boolean
}

/** A trail, the strongest first: what decides, and what lost and where. Each leads to where its assignment is edited. */
export function RungList({ title, rungs, perPerson = false }: Props) {
  const now = useNow(MINUTE_MS)
  return (
    <Box as="ol" listStyleType="none" mx="-2">
      {rungs.map((rung, i) => (
        <RungLine
          key={`${rung.assignment} ${rung.target}`}
          rung={rung}
          perPerson={perPerson}
          edit={rung.kit === undefined ? assignAddress({ title, id: rung.assignment }) : undefined}
          last={i === rungs.length - 1}
          now={now}
        />
      ))}
    </Box>
  )
}

interface LineProps {
  rung: Rung
  perPerson: boolean
  /** Where it is edited; nothing for a kit's. */
  edit: string | undefined
  last: boolean
  now: number
}

function RungLine({ rung, perPerson, edit, last, now }: LineProps) {
  const decides = rung.verdict === 'decides' || rung.verdict === 'disagrees' || rung.verdict === 'inside'
  return (
    <Flex
      as="li"
      position="relative"
      gap="3.5"
      px="2.5"
      py="2"
      borderRadius="md"
      bg={rung.verdict === 'decides' ? 'lagoonSoft' : undefined}
    >
      {!last && <Box position="absolute" left="18px" top="28px" bottom="-8px" w="2px" bg="line" />}
      <Box pt="px" position="relative" opacity={decides ? 1 : 0.55} flexShrink="0">
        <Diamond kind={rung.verdict === 'disagrees' ? 'contested' : rung.intent} size={18} />
      </Box>
      <Box minW="0">
        <Box fontWeight="600" color={decides ? 'ink' : 'ink3'} textDecoration={decides ? undefined : 'line-through'}>
          {intentVerb(rung.intent)} · {rung.targetName}
          {rung.kit !== undefined && ` · by the kit ${rung.kit}`}
          {rung.binding && ' · binding'}
          {rung.devices !== undefined &&
            decides &&
            ` · ${perPerson ? some(rung.devices, 'person', 'people') : some(rung.devices, 'device')}`}
        </Box>
        <Box color="ink2" textStyle="second">
          {rung.sentence}
          <Origin rung={rung} now={now} />
          {edit !== undefined && (
            <Box as="span" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
              {' · '}
              <Link to={edit}>{rung.verdict === 'disagrees' ? 'settle…' : 'edit'}</Link>
            </Box>
          )}
        </Box>
      </Box>
    </Flex>
  )
}

function Origin({ rung, now }: { rung: Rung; now: number }): ReactNode {
  if (rung.draft === 'added') {
    return ' · in the draft'
  }
  if (rung.change === undefined || rung.since === undefined) {
    return null
  }
  return (
    <span title={fullInstant(rung.since)}>
      {' '}
      · since {date(rung.since, now)} · {`change\u00a0${rung.change}`}
    </span>
  )
}
