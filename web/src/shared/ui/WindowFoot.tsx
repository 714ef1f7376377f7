import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Button } from './Button'

interface Props {
  /** Why it has not been done, or cannot be. */
  trouble?: string | undefined
  /** What is said where nothing is wrong. */
  note?: string | undefined
  onCancel?: () => void
  /** The buttons that do something, the last of them the one that the window is for. */
  children: ReactNode
  /** Stands before Cancel. */
  before?: ReactNode
}

/** The last line of a window: what is wrong, and the buttons. */
export function WindowFoot({ trouble, note, onCancel, before, children }: Props) {
  return (
    <Flex gap="2" align="center" w="100%">
      <Box
        flex="1"
        textStyle="compact"
        color={trouble === undefined ? 'ink2' : 'trouble'}
        role={trouble === undefined ? undefined : 'alert'}
      >
        {trouble ?? note}
      </Box>
      {before}
      {onCancel !== undefined && (
        <Button size="lg" onClick={onCancel}>
          Cancel
        </Button>
      )}
      {children}
    </Flex>
  )
}
