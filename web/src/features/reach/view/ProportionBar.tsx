import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { withQuery } from '../../../shared/api'
import { Diamond } from '../../../shared/Diamond'
import { count } from '../../../shared/format'
import { OUTCOMES } from '../../../shared/outcomes'
import type { Counts } from '../api/reach'
import { proportions } from '../model/fill'

interface Props {
  title: string
  ou: string
  counts: Counts
}

/** A part of the fleet by outcome: a bar, and figures that open into the devices they count. */
export function ProportionBar({ title, ou, counts }: Props) {
  const shown = OUTCOMES.filter(outcome => counts[outcome.kind] > 0)
  return (
    <Box>
      <Flex h="11px" borderRadius="6px" overflow="hidden" bg="bandNone" aria-hidden="true">
        {proportions(counts).map(stretch => (
          <Box
            key={stretch.kind}
            bg={stretch.kind === 'none' || stretch.kind === 'unfit' ? 'bandNone' : `band${capital(stretch.kind)}`}
            style={{ width: `${stretch.share * 100}%` }}
          />
        ))}
      </Flex>
      <Flex mt="6px" gap="14px" wrap="wrap" fontSize="13px" color="ink2">
        {shown.map(outcome => (
          <Count key={outcome.kind} to={withQuery('/fleet', { title, outcome: outcome.kind, ou })}>
            <Diamond kind={outcome.kind} size={11} />
            {count(counts[outcome.kind])} {outcome.counted}
          </Count>
        ))}
        {counts.none > 0 && (
          <Count to={withQuery('/fleet', { title, outcome: 'none', ou })}>{count(counts.none)} untouched</Count>
        )}
      </Flex>
    </Box>
  )
}

function Count({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Box css={{ '& a:hover': { textDecoration: 'underline' } }}>
      <Link to={to}>
        <Flex align="center" gap="5px">
          {children}
        </Flex>
      </Link>
    </Box>
  )
}

function capital(word: string): string {
  return word.charAt(0).toUpperCase() + word.slice(1)
}
