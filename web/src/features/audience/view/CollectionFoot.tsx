import { Box, Flex } from '@chakra-ui/react'
import { Button } from '../../../shared/ui/Button'

interface Props {
  trouble: string | undefined
  edited: boolean
  nameless: boolean
  busy: boolean
  onKeep: () => void
  onCancel: () => void
  onDelete: (() => void) | undefined
}

/** What is wrong, and the buttons. */
export function CollectionFoot({ trouble, edited, nameless, busy, onKeep, onCancel, onDelete }: Props) {
  return (
    <Flex
      gap="2"
      align="center"
      px="4.5"
      py="2.5"
      borderTopWidth="1px"
      borderColor="line"
      bg="paper"
      borderBottomRadius="lg"
    >
      <Box
        flex="1"
        color={trouble === undefined ? 'ink2' : 'trouble'}
        textStyle="second"
        role={trouble === undefined ? undefined : 'alert'}
      >
        {trouble ?? (edited ? 'Not in the draft yet. What you have written stays in this tab.' : '')}
      </Box>
      {onDelete !== undefined && (
        <Button size="lg" onClick={onDelete}>
          Delete
        </Button>
      )}
      <Button size="lg" onClick={onCancel} disabled={!edited && onDelete !== undefined}>
        Cancel
      </Button>
      <Button size="lg" variant="honey" loading={busy} disabled={!edited || nameless} onClick={onKeep}>
        Keep in the draft
      </Button>
    </Flex>
  )
}
