import { chakra } from '@chakra-ui/react'

const Track = chakra('div', {
  base: {
    h: '1.5',
    borderRadius: 'sm',
    bg: 'bandNone',
    overflow: 'hidden',
    flexShrink: 0,
    '& > div': { height: '100%', borderRadius: 'sm', bg: 'required', transition: 'width 300ms' },
    '&[data-unknown] > div': { width: '40%', animation: 'pulse' },
  },
})

interface Props {
  /** How far it is, from 0 to 100; without one, it is under way and nobody knows how far. */
  percent: number | undefined
  /** What is under way. */
  label: string
  width?: string
}

/** How far something is. */
export function Progress({ percent, label, width = '100%' }: Props) {
  return (
    <Track
      role="progressbar"
      aria-label={label}
      aria-valuenow={percent === undefined ? undefined : Math.round(percent)}
      data-unknown={percent === undefined ? '' : undefined}
      style={{ width }}
    >
      <div style={percent === undefined ? undefined : { width: `${percent}%` }} />
    </Track>
  )
}
