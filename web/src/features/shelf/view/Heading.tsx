import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** The head of a part of the shelf, with how many there are. */
export function Heading({ words, n, children }: { words: string; n: number; children?: ReactNode }) {
  return (
    <Flex align="center" gap="3" mt="6" mb="2.5" wrap="wrap">
      <Box as="h2" textStyle="heading">
        {words}
        <Box as="span" color="ink2" fontWeight="400" ml="2.5">
          {n}
        </Box>
      </Box>
      <Box flex="1" />
      {children}
    </Flex>
  )
}
