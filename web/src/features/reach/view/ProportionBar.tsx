import { Box, Flex } from '@chakra-ui/react'
import { withQuery } from '../../../shared/api'
import { bandFill } from '../../../shared/bandFill'
import { count } from '../../../shared/format'
import { outcomeWords, SHOWN } from '../../../shared/outcomes'
import { Diamond } from '../../../shared/ui/Diamond'
import { StackBar } from '../../../shared/ui/StackBar'
import type { Counts } from '../api/reach'
import { countsInWords, occurring } from '../model/fill'
import { NowLink } from './NowLink'

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
          <NowLink
            key={kind}
            n={shown[kind]}
            now={counts[kind]}
            list={withQuery('/fleet', { title, outcome: kind, ou })}
          >
            <Flex align="center" gap="1.5">
              {kind !== 'none' && <Diamond kind={kind} size={11} />}
              {count(shown[kind])} {outcomeWords(kind).counted}
            </Flex>
          </NowLink>
        ))}
      </Flex>
    </Box>
  )
}
