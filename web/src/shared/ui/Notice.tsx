import { Box } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** What stands where there is nothing to show, or where something went wrong. */
export function Notice({ heading, children }: { heading: string; children: ReactNode }) {
  return (
    <Box py="12" px="4.5" maxW="560px" mx="auto" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
      <Box as="h1" textStyle="heading" mb="1.5">
        {heading}
      </Box>
      <Box color="ink2">{children}</Box>
    </Box>
  )
}
