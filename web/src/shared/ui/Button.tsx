import { chakra } from '@chakra-ui/react'
import type { ComponentProps } from 'react'

const Styled = chakra('button', {
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '2',
    flexShrink: 0,
    whiteSpace: 'nowrap',
    userSelect: 'none',
    textStyle: 'compact',
    fontWeight: '600',
    borderRadius: 'md',
    borderWidth: '1px',
    cursor: 'pointer',
    transitionProperty: 'background-color, border-color',
    transitionDuration: '120ms',
    _focusVisible: { outline: '2px solid', outlineColor: 'lagoon', outlineOffset: '2px' },
    '&:is(:disabled, [aria-busy=true])': { opacity: 0.55, cursor: 'not-allowed' },
  },
  variants: {
    size: {
      /** In the middle of a sentence. */
      inline: { h: 'auto', px: '0', textStyle: 'second' },
      xs: { h: '6', px: '1.5' },
      sm: { h: '7', px: '2' },
      md: { h: '8', px: '2.5' },
      lg: { h: '9', px: '3', textStyle: 'body' },
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
        px: '1',
        textDecoration: 'underline',
        textUnderlineOffset: '2px',
      },
    },
  },
  compoundVariants: [{ size: 'inline', variant: 'text', css: { px: '0' } }],
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
