import { chakra } from '@chakra-ui/react'

/** A key, as it stands beside what it does. */
export const Kbd = chakra('kbd', {
  base: {
    fontFamily: 'body',
    textStyle: 'fine',
    px: '1',
    borderWidth: '1px',
    borderBottomWidth: '2px',
    borderColor: 'line',
    borderRadius: 'sm',
    bg: 'panel',
    color: 'ink2',
    whiteSpace: 'nowrap',
  },
})
