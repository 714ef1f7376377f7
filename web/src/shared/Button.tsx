import { chakra } from '@chakra-ui/react'
import type { ComponentProps } from 'react'

const Styled = chakra('button', {
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '8px',
    flexShrink: 0,
    whiteSpace: 'nowrap',
    userSelect: 'none',
    fontWeight: '600',
    borderRadius: '6px',
    borderWidth: '1px',
    cursor: 'pointer',
    transitionProperty: 'background-color, border-color',
    transitionDuration: '120ms',
    _focusVisible: { outline: '2px solid', outlineColor: 'lagoon', outlineOffset: '2px' },
    '&:is(:disabled, [aria-busy=true])': { opacity: 0.55, cursor: 'not-allowed' },
  },
  variants: {
    size: {
      md: { h: '32px', px: '11px', fontSize: '13.5px' },
      lg: { h: '36px', px: '12px', fontSize: '14px' },
    },
    variant: {
      plain: { bg: 'panel', color: 'ink', borderColor: 'line', _hover: { bg: 'hover' } },
      chosen: { bg: 'lagoonSoft', color: 'ink', borderColor: 'lagoonLine' },
      honey: { bg: 'honey', color: 'onHoney', borderColor: 'honey', _hover: { filter: 'brightness(0.95)' } },
      bar: { bg: 'transparent', color: 'onBar', borderColor: 'barLine', _hover: { bg: 'barHover' } },
      text: {
        bg: 'transparent',
        color: 'lagoon',
        borderColor: 'transparent',
        px: '4px',
        textDecoration: 'underline',
        textUnderlineOffset: '2px',
      },
    },
  },
  defaultVariants: { size: 'md', variant: 'plain' },
})

type Props = ComponentProps<typeof Styled> & {
  /** While true the button does nothing and says so. */
  loading?: boolean
}

/** A button of ours. */
export function Button({ loading = false, type = 'button', onClick, ...rest }: Props) {
  // Not disabled while it loads: that would take the focus away from it.
  return (
    <Styled
      type={type}
      aria-busy={loading}
      aria-disabled={loading ? true : undefined}
      onClick={loading ? event => event.preventDefault() : onClick}
      {...rest}
    />
  )
}
