import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'

interface Props {
  heading: string
  /** What is wrong with it. */
  problems: readonly string[]
  children: ReactNode
}

/** One part of the sheet: what it is about at the left. */
export function SheetRow({ heading, problems, children }: Props) {
  return (
    <Flex
      as="section"
      aria-label={heading}
      gap="4"
      px="4.5"
      py="3"
      borderTopWidth="1px"
      borderColor="line"
      direction={{ base: 'column', md: 'row' }}
    >
      <Box as="h3" w="84px" flexShrink="0" fontWeight="600" color="ink2" pt="1">
        {heading}
      </Box>
      <Box flex="1" minW="0">
        {children}
        {problems.map(problem => (
          <Box key={problem} role="alert" color="trouble" textStyle="second" mt="1.5">
            {problem}
          </Box>
        ))}
      </Box>
    </Flex>
  )
}
