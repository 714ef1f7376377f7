import { chakra } from '@chakra-ui/react'

/** A key, as it stands beside what it does. */
export const Kbd = chakra('kbd', {
  base: {
    fontFamily: 'body',
    fontSize: '11px',
    lineHeight: '16px',
    px: '5px',
    borderWidth: '1px',
    borderBottomWidth: '2px',
    borderColor: 'line',
    borderRadius: '4px',
    bg: 'panel',
    color: 'ink2',
    whiteSpace: 'nowrap',
  },
})
