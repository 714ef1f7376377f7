import { Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** A page below the head. What is on it shares its height; where the screen is narrow or low, the page scrolls instead. */
export function Page({ children }: { children: ReactNode }) {
  return (
    <Flex
      direction="column"
      h="100%"
      px="4.5"
      pt="3"
      pb="4"
      gap="3"
      overflowY="auto"
      css={{ '& > *': { flexShrink: 0 } }}
    >
      {children}
    </Flex>
  )
}

/** The parts of a page, beside each other; below each other where the screen is narrow. */
export function Columns({ children }: { children: ReactNode }) {
  return (
    <Flex
      direction={{ base: 'column', lg: 'row' }}
      flex={{ base: 'none', lg: '1 0 0' }}
      h={{ base: 'auto', lg: '0' }}
      minH={{ base: 'auto', lg: '320px' }}
      gap="4"
      css={{ '& > *': { maxWidth: '100%' } }}
    >
      {children}
    </Flex>
  )
}

/** The widths of a part at the side, which takes the whole width where it stands below. */
export const side = (width: string) => ({ w: { base: '100%', lg: width }, flexShrink: 0 }) as const
