import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import type { PresenceCheck, VariantRecord } from '../api/catalogue'
import { PRESENCE_KINDS } from '../model/presence'
import type { Spot } from '../model/record'
import { withVariant } from '../model/record'
import type { Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'
import { Select, TextField } from '../../../shared/ui/TextField'

interface Props {
  spot: Spot
  presence: VariantRecord['presence']
  editing: Editing
  onClose: () => void
}

const EMPTY: PresenceCheck = { kind: 'inventory', subject: '', version: '' }

/** By what one sees that it is there. */
export function PresenceWindow({ spot, presence, editing, onClose }: Props) {
  const [checks, setChecks] = useState<readonly PresenceCheck[]>(
    presence.checks.length === 0 ? [EMPTY] : presence.checks,
  )
  const [any, setAny] = useState(presence.any)
  const filled = checks.filter(check => check.subject.trim() !== '')
  const set = (at: number, change: Partial<PresenceCheck>) =>
    setChecks(checks.map((check, i) => (i === at ? { ...check, ...change } : check)))
  return (
    <EditWindow
      heading="Presence check"
      width="720px"
      editing={editing}
      onClose={onClose}
      edit={record => withVariant(record, spot, variant => ({ ...variant, presence: { any, checks: filled } }))}
    >
      {checks.map((check, i) => (
        <Flex key={`check ${i}`} gap="2.5" align="flex-end" mb="2.5">
          <Select
            aria-label={`Check ${i + 1}: kind`}
            value={check.kind}
            onChange={event => set(i, { kind: event.target.value as PresenceCheck['kind'] })}
          >
            {Object.entries(PRESENCE_KINDS).map(([kind, words]) => (
              <option key={kind} value={kind}>
                {words}
              </option>
            ))}
          </Select>
          <Box flex="1">
            <TextField
              label="Name, path or code"
              mono
              value={check.subject}
              onChange={subject => set(i, { subject })}
            />
          </Box>
          <Box w="130px">
            <TextField label="Version from" value={check.version} onChange={version => set(i, { version })} />
          </Box>
          <Button onClick={() => setChecks(checks.filter((_, at) => at !== i))}>Delete</Button>
        </Flex>
      ))}
      <Flex gap="3" align="center">
        <Button onClick={() => setChecks([...checks, EMPTY])}>Add a check</Button>
        {checks.length > 1 && (
          <Select
            aria-label="How many"
            value={any ? 'any' : 'all'}
            onChange={event => setAny(event.target.value === 'any')}
          >
            <option value="all">all checks must hold</option>
            <option value="any">any check is enough</option>
          </Select>
        )}
        {filled.length === 0 && (
          <Box color="ochre" textStyle="compact">
            Without a presence check its status is unverified.
          </Box>
        )}
      </Flex>
    </EditWindow>
  )
}
