import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { Window } from '../../../shared/Window'
import type { Edit, Editing } from '../model/useEdit'
import { useRehearsedEdit } from '../model/useRehearsedEdit'
import { EffectList } from './EffectList'
import { TextField } from './TextField'

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

/** A window in which one part of a title is edited. What would change for devices is rehearsed, said, and asked about. */
export function EditWindow({ heading, width = '600px', editing, edit, onClose, problem, children }: Props) {
  const [why, setWhy] = useState('')
  // Somebody else may save meanwhile: the first try is told so, the next is made to what they saved.
  const [seen, setSeen] = useState<number | undefined>(editing.revision)
  const rehearsed = useRehearsedEdit(editing, edit, problem === undefined)
  const changes = rehearsed.kind === 'known' && rehearsed.effects.effects.length > 0
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
            variant={changes ? 'honey' : 'chosen'}
            loading={editing.pending || rehearsed.kind === 'rehearsing'}
            disabled={problem !== undefined || (changes && why.trim().length < 3)}
            onClick={() =>
              editing.save(edit, onClose, {
                why: changes ? why : undefined,
                revision: seen,
                onRefused: () => setSeen(undefined),
              })
            }
          >
            Save
          </Button>
        </Flex>
      }
    >
      {children}
      {changes && (
        <Box bg="paper" borderRadius="6px" p="10px 12px" mt="14px">
          <Box mb="8px" role="status">
            <EffectList effects={rehearsed.effects} />
          </Box>
          <TextField label="Why?" value={why} required onChange={setWhy} />
        </Box>
      )}
    </Window>
  )
}
