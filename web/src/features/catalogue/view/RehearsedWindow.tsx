import { Box } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
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
  const said = problem ?? refusal ?? (rehearsed.kind === 'refused' ? rehearsed.why : undefined)
  const isRehearsing = rehearsed.kind === 'rehearsing' || (rehearsed.kind === 'known' && rehearsed.again)
  return (
    <Window
      open
      onClose={onClose}
      heading={heading}
      width={width}
      foot={
        <WindowFoot trouble={said} onCancel={onClose}>
          <Button
            size="lg"
            variant={changes ? 'honey' : 'chosen'}
            loading={pending || isRehearsing}
            disabled={problem !== undefined || (changes && why.trim().length < 3)}
            onClick={() => onSave(changes ? why : undefined)}
          >
            Save
          </Button>
        </WindowFoot>
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
