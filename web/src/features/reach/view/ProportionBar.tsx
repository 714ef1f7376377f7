import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { withQuery } from '../../../shared/api'
import { bandFill } from '../../../shared/bandFill'
import { count } from '../../../shared/format'
import type { Shown } from '../../../shared/outcomes'
import { outcomeWords, SHOWN } from '../../../shared/outcomes'
import { Diamond } from '../../../shared/ui/Diamond'
import { StackBar } from '../../../shared/ui/StackBar'
import type { Counts } from '../api/reach'
import { countsInWords, occurring } from '../model/fill'

interface Props {
  title: string
  ou: string
  /** As it is now. */
  counts: Counts
  /** As the draft would make it; nothing where that is the same. */
  after: Counts | undefined
}

/** A part of the fleet by outcome: a bar, and figures that open into the devices they count. */
export function ProportionBar({ title, ou, counts, after }: Props) {
  const shown = after ?? counts
  return (
    <Box>
      <StackBar
        whole={SHOWN.reduce((sum, kind) => sum + shown[kind], 0)}
        words={countsInWords(shown)}
        parts={SHOWN.map(kind => ({ id: kind, n: shown[kind], ...bandFill(kind) }))}
      />
      <Flex mt="1.5" rowGap="0.5" columnGap="3.5" wrap="wrap" textStyle="compact" color="ink2">
        {occurring(counts, after).map(kind => (
          <Figure
            key={kind}
            kind={kind}
            n={shown[kind]}
            now={counts[kind]}
            list={withQuery('/fleet', { title, outcome: kind, ou })}
          />
        ))}
      </Flex>
    </Box>
  )
}

/** A list shows what is: it opens from the number that counts that. */
function Figure({ kind, n, now, list }: { kind: Shown; n: number; now: number; list: string }) {
  const figure = (
    <Flex align="center" gap="1.5">
      {kind !== 'none' && <Diamond kind={kind} size={11} />}
      {count(n)} {outcomeWords(kind).counted}
    </Flex>
  )
  return (
    <Flex gap="1.5" css={{ '& a:hover': { textDecoration: 'underline' } }}>
      {n === now ? (
        <Link to={list}>{figure}</Link>
      ) : (
        <>
          {figure}
          <Box color="ink3">
            (<Link to={list}>{count(now)} now</Link>)
          </Box>
        </>
      )}
    </Flex>
  )
}
