import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { Window } from '../../../shared/ui/Window'
import type { Rehearsed } from '../state/useRehearsedEdit'
import { EffectList } from './EffectList'
import { TextField } from '../../../shared/ui/TextField'

interface Props {
  heading: string
  width: string
  rehearsed: Rehearsed
  pending: boolean
  /** Why it cannot be saved as it is. */
  problem: string | undefined
  /** Why the last try was refused. */
  refusal: string | undefined
  onSave: (why: string | undefined) => void
  onClose: () => void
  children: ReactNode
}

/** A window in which something is edited. What would change for devices is rehearsed, said, and asked about. */
export function RehearsedWindow({
  heading,
  width,
  rehearsed,
  pending,
  problem,
  refusal,
  onSave,
  onClose,
  children,
}: Props) {
  const [why, setWhy] = useState('')
  const changes = rehearsed.kind === 'known' && rehearsed.effects.effects.length > 0
  const said = problem ?? refusal
  return (
    <Window
      open
      onClose={onClose}
      heading={heading}
      width={width}
      foot={
        <Flex gap="2" align="center" w="100%">
          <Box flex="1" textStyle="compact" color="trouble" role={said === undefined ? undefined : 'alert'}>
            {said}
          </Box>
          <Button size="lg" onClick={onClose}>
            Cancel
          </Button>
          <Button
            size="lg"
            variant={changes ? 'honey' : 'chosen'}
            loading={pending || rehearsed.kind === 'rehearsing'}
            disabled={problem !== undefined || (changes && why.trim().length < 3)}
            onClick={() => onSave(changes ? why : undefined)}
          >
            Save
          </Button>
        </Flex>
      }
    >
      {children}
      {changes && (
        <Box bg="paper" borderRadius="md" py="2.5" px="3" mt="3.5">
          <Box mb="2" role="status">
            <EffectList effects={rehearsed.effects} />
          </Box>
          <TextField label="Why?" value={why} required onChange={setWhy} />
        </Box>
      )}
    </Window>
  )
}
