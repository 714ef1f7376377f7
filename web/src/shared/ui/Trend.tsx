import { Box } from '@chakra-ui/react'

/** How much it was from an instant on. */
export interface TrendPoint {
  /** In milliseconds since 1970. */
  readonly at: number
  readonly n: number
}

interface Props {
  /** The oldest first. */
  points: readonly TrendPoint[]
  /** To when the last of them holds, in milliseconds since 1970. */
  until: number
  /** What it shows, in words, for those who do not see it. */
  words: string
}

const WIDTH = 300
const HEIGHT = 56
const EDGE = 4

/** A figure over time, as steps: it was the same until it was another. */
export function Trend({ points, until, words }: Props) {
  const first = points[0]
  if (first === undefined) {
    return null
  }
  const span = Math.max(1, until - first.at)
  const most = Math.max(1, ...points.map(point => point.n))
  const x = (at: number) => EDGE + ((WIDTH - 2 * EDGE) * (at - first.at)) / span
  const y = (n: number) => HEIGHT - EDGE - ((HEIGHT - 2 * EDGE) * n) / most
  const path = points.map((point, i) => (i === 0 ? `M${x(point.at)},${y(point.n)}` : `H${x(point.at)}V${y(point.n)}`))
  const last = points.at(-1) ?? first
  return (
    <Box color="lagoon" css={{ '& .base': { stroke: 'line' } }}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={words}>
        <path d={`M0,${HEIGHT - 1}H${WIDTH}`} className="base" stroke="currentColor" strokeOpacity="0.3" />
        <path d={`${path.join('')}H${x(until)}`} fill="none" stroke="currentColor" strokeWidth="2" />
        <circle cx={x(until)} cy={y(last.n)} r="3" fill="currentColor" />
      </svg>
    </Box>
  )
}
