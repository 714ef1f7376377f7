import { useToken } from '@chakra-ui/react'

/** The kinds of the one shape that every outcome is drawn from. */
export type DiamondKind = 'required' | 'uninstall' | 'contested' | 'unfit' | 'none'

const OUTLINE = 'M8 1.2 14.8 8 8 14.8 1.2 8Z'

/** An outcome as a shape. Its colour is never all that tells it. */
export function Diamond({ kind, size = 14 }: { kind: DiamondKind; size?: number }) {
  const [required, uninstall, ink3, panel] = useToken('colors', ['required', 'uninstall', 'ink3', 'chip'])
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" focusable="false">
      <Shape kind={kind} required={required} uninstall={uninstall} grey={ink3} gap={panel} />
    </svg>
  )
}

interface ShapeProps {
  kind: DiamondKind
  required: string | undefined
  uninstall: string | undefined
  grey: string | undefined
  gap: string | undefined
}

function Shape({ kind, required, uninstall, grey, gap }: ShapeProps) {
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
    case 'unfit':
      return <path d={OUTLINE} fill="none" stroke={grey} strokeWidth="1.6" strokeDasharray="1.6 2" />
    case 'none':
      return <path d={OUTLINE} fill="none" stroke={grey} strokeWidth="1.2" />
  }
}
