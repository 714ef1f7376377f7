import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Button } from '../../../shared/Button'
import { Window } from '../../../shared/Window'
import type { Edit, Editing } from '../model/useEdit'

interface Props {
  heading: string
  width?: string
  editing: Editing
  edit: Edit
  onClose: () => void
  /** Why it cannot be saved as it is. */
  problem?: string | undefined
  children: ReactNode
}

/** A window in which one part of a title is edited. */
export function EditWindow({ heading, width = '600px', editing, edit, onClose, problem, children }: Props) {
  const said = problem ?? editing.refusal
  return (
    <Window
      open
      onClose={onClose}
      heading={heading}
      width={width}
      foot={
        <Flex gap="8px" align="center" w="100%">
          <Box flex="1" fontSize="13px" color="trouble" role={said === undefined ? undefined : 'alert'}>
            {said}
          </Box>
          <Button size="lg" onClick={onClose}>
            Leave it
          </Button>
          <Button
            size="lg"
            variant="chosen"
            loading={editing.pending}
            disabled={problem !== undefined}
            onClick={() => editing.save(edit, onClose)}
          >
            Save
          </Button>
        </Flex>
      }
    >
      {children}
    </Window>
  )
}
