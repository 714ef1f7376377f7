import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'

interface Props {
  name: string
  /** What stands below the name, as code. */
  below: string
  children: ReactNode
}

/** One line of a short list that is managed: its name, what it is, and what can be done with it. */
export function ListRow({ name, below, children }: Props) {
  return (
    <Flex
      as="section"
      aria-label={name}
      align="center"
      gap="3.5"
      px="4"
      py="2"
      borderBottomWidth="1px"
      borderColor="line"
    >
      <Box flex="1" minW="0">
        <Box fontWeight="600" truncate>
          {name}
        </Box>
        <Box as="code" textStyle="code" color="ink2" overflowWrap="anywhere">
          {below}
        </Box>
      </Box>
      {children}
    </Flex>
  )
}
