import { Box } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** What stands where there is nothing to show, or where something went wrong. */
export function Notice({ heading, children }: { heading: string; children: ReactNode }) {
  return (
    <Box p="48px 18px" maxW="560px" mx="auto" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
      <Box as="h1" fontSize="17px" fontWeight="700" mb="6px">
        {heading}
      </Box>
      <Box color="ink2">{children}</Box>
    </Box>
  )
}
