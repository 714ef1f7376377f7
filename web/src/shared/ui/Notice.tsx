import { Box } from '@chakra-ui/react'
import type { ReactNode } from 'react'

interface Props {
  heading: string
  /** Whether it is all that the page says: its heading is the page's. */
  alone?: boolean
  children: ReactNode
}

/** What stands where there is nothing to show, or where something went wrong. */
export function Notice({ heading, alone = false, children }: Props) {
  return (
    <Box py="12" px="4.5" maxW="560px" mx="auto" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
      <Box as={alone ? 'h1' : 'h2'} textStyle="heading" mb="1.5">
        {heading}
      </Box>
      <Box color="ink2">{children}</Box>
    </Box>
  )
}
