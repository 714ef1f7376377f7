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

// As variables of the theme, which cost nothing to look up: a map draws hundreds of them.
const REQUIRED = 'var(--chakra-colors-required)'
const UNINSTALL = 'var(--chakra-colors-uninstall)'
const AVAILABLE = 'var(--chakra-colors-ochre)'
const GREY = 'var(--chakra-colors-ink3)'
const GAP = 'var(--chakra-colors-chip)'

/** An outcome as a shape. Its colour is never all that tells it. */
export function Diamond({ kind, size = 14 }: { kind: DiamondKind; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" focusable="false">
      <Shape kind={kind} />
    </svg>
  )
}

function Shape({ kind }: { kind: DiamondKind }) {
  switch (kind) {
    case 'required':
      return <path d={OUTLINE} fill={REQUIRED} />
    case 'uninstall':
      return (
        <>
          <path d={OUTLINE} fill={UNINSTALL} />
          <rect x="4.2" y="7" width="7.6" height="2" fill={GAP} />
        </>
      )
    case 'contested':
      return (
        <>
          <path d="M7.1 2.1 7.1 13.9 1.2 8Z" fill={REQUIRED} />
          <path d="M8.9 2.1 8.9 13.9 14.8 8Z" fill={UNINSTALL} />
        </>
      )
    case 'available':
      return <path d={OUTLINE} fill="none" stroke={AVAILABLE} strokeWidth="2" />
    case 'later':
      return <path d="M8 1.2 8 14.8 1.2 8Z" fill={GREY} />
    case 'waiting':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={REQUIRED} strokeWidth="1.2" />
          <path d="M8 5.2 10.8 8 8 10.8 5.2 8Z" fill={REQUIRED} />
        </>
      )
    case 'blocked':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={UNINSTALL} strokeWidth="1.6" />
          <rect x="4.2" y="7" width="7.6" height="2" fill={UNINSTALL} />
        </>
      )
    case 'replaced':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={GREY} strokeWidth="1.2" />
          <path d="M8 1.2 14.8 8 8 14.8Z" fill={REQUIRED} />
        </>
      )
    case 'displaced':
      return (
        <>
          <path d={OUTLINE} fill="none" stroke={GREY} strokeWidth="1.2" />
          <path d="M4.6 11.4 11.4 4.6" stroke={GREY} strokeWidth="1.6" />
        </>
      )
    case 'unfit':
      return <path d={OUTLINE} fill="none" stroke={GREY} strokeWidth="1.6" strokeDasharray="1.6 2" />
    case 'none':
      return <path d={OUTLINE} fill="none" stroke={GREY} strokeWidth="1.2" />
  }
}
