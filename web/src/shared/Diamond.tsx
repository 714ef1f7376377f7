import { useToken } from '@chakra-ui/react'

/** The kinds of the one shape that every outcome is drawn from. */
export type DiamondKind =
  | 'required'
  | 'available'
  | 'uninstall'
  | 'contested'
  | 'later'
  | 'unfit'
  | 'blocked'
  | 'replaced'
  | 'displaced'
  | 'waiting'
  | 'none'

const OUTLINE = 'M8 1.2 14.8 8 8 14.8 1.2 8Z'

/** An outcome as a shape. Its colour is never all that tells it. */
export function Diamond({ kind, size = 14 }: { kind: DiamondKind; size?: number }) {
  const [required, uninstall, available, ink3, panel] = useToken('colors', [
    'required',
    'uninstall',
    'ochre',
    'ink3',
    'chip',
  ])
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" focusable="false">
      <Shape kind={kind} required={required} uninstall={uninstall} available={available} grey={ink3} gap={panel} />
    </svg>
  )
}

interface ShapeProps {
  kind: DiamondKind
  required: string | undefined
  uninstall: string | undefined
  available: string | undefined
  grey: string | undefined
  gap: string | undefined
}

function Shape({ kind, required, uninstall, available, grey, gap }: ShapeProps) {
  switch (kind) {
    case 'required':
      return <path d={OUTLINE} fill={required} />
    case 'uninstall':
      return (
        <>
          <path d={OUTLINE} fill={uninstall} />
          <rect x="4.2" y="7" width="7.6" height="2" fill={gap} />
        </>
      )
    case 'contested':
      return (
        <>
          <path d="M7.1 2.1 7.1 13.9 1.2 8Z" fill={required} />
          <path d="M8.9 2.1 8.9 13.9 14.8 8Z" fill={uninstall} />
        </>
      )
    case 'available':
      return <path d={OUTLINE} fill="none" stroke={available} strokeWidth="2" />
    case 'later':
      return <path d="M8 1.2 8 14.8 1.2 8Z" fill={grey} />
    case 'waiting':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={required} strokeWidth="1.2" />
          <path d="M8 5.2 10.8 8 8 10.8 5.2 8Z" fill={required} />
        </>
      )
    case 'blocked':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={uninstall} strokeWidth="1.6" />
          <rect x="4.2" y="7" width="7.6" height="2" fill={uninstall} />
        </>
      )
    case 'replaced':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={grey} strokeWidth="1.2" />
          <path d="M8 1.2 14.8 8 8 14.8Z" fill={required} />
        </>
      )
    case 'displaced':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={grey} strokeWidth="1.2" />
          <path d="M4.6 11.4 11.4 4.6" stroke={grey} strokeWidth="1.6" />
        </>
      )
    case 'unfit':
      return <path d={OUTLINE} fill="none" stroke={grey} strokeWidth="1.6" strokeDasharray="1.6 2" />
    case 'none':
      return <path d={OUTLINE} fill="none" stroke={grey} strokeWidth="1.2" />
  }
}
