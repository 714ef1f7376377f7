import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { withQuery } from '../../../shared/api'
import { bandFill } from '../../../shared/bandFill'
import { Diamond } from '../../../shared/Diamond'
import { count } from '../../../shared/format'
import { outcomeWords } from '../../../shared/outcomes'
import type { Counts } from '../api/reach'
import { occurring, proportions } from '../model/fill'

interface Props {
  title: string
  ou: string
  counts: Counts
}

/** A part of the fleet by outcome: a bar, and figures that open into the devices they count. */
export function ProportionBar({ title, ou, counts }: Props) {
  return (
    <Box>
      <Flex h="11px" borderRadius="6px" overflow="hidden" bg="bandNone" aria-hidden="true">
        {proportions(counts).map(stretch => (
          <Box
            key={stretch.kind}
            bgColor={bandFill(stretch.kind).colour}
            css={{ backgroundImage: bandFill(stretch.kind).image, backgroundSize: bandFill(stretch.kind).size }}
            style={{ width: `${stretch.share * 100}%` }}
          />
        ))}
      </Flex>
      <Flex mt="6px" gap="14px" wrap="wrap" fontSize="13px" color="ink2">
        {occurring(counts, undefined).map(kind => (
          <Count key={kind} to={withQuery('/fleet', { title, outcome: kind, ou })}>
            {kind !== 'none' && <Diamond kind={kind} size={11} />}
            {count(counts[kind])} {outcomeWords(kind).counted}
          </Count>
        ))}
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
