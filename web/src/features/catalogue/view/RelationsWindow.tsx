import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import type { ReleaseRecord, TitlePageData } from '../api/catalogue'
import { withRelease } from '../model/record'
import type { Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'
import { Select, TextField } from '../../../shared/ui/TextField'
import { TitlePicker } from './TitlePicker'

type Kind = 'needs' | 'in-place' | 'off-first' | 'conflicts'

interface Line {
  readonly kind: Kind
  readonly title: string
  readonly min: string
}

const KINDS: readonly (readonly [Kind, string])[] = [
  ['needs', 'needs'],
  ['in-place', 'replaces, in place'],
  ['off-first', 'replaces, removing it first'],
  ['conflicts', 'conflicts with'],
]

/** The relations of a release, and the conflicts of its title. */
export function RelationsWindow({
  page,
  version,
  editing,
  onClose,
}: {
  page: TitlePageData
  version: string
  editing: Editing
  onClose: () => void
}) {
  const release = page.record.releases.find(r => r.version === version)
  const [lines, setLines] = useState<readonly Line[]>(() => linesOf(release, page.record.conflictsWith))
  const set = (at: number, change: Partial<Line>) =>
    setLines(lines.map((line, i) => (i === at ? { ...line, ...change } : line)))
  const filled = lines.filter(line => line.title !== '')
  return (
    <EditWindow
      heading={`Relations of ${page.record.name} ${version}`}
      width="640px"
      editing={editing}
      onClose={onClose}
      edit={record => ({
        ...withRelease(record, version, r => ({
          ...r,
          needs: filled
            .filter(line => line.kind === 'needs')
            .map(line => ({ title: line.title, ...(line.min.trim() !== '' && { min: line.min.trim() }) })),
          replaces: filled
            .filter(line => line.kind === 'in-place' || line.kind === 'off-first')
            .map(line => ({ title: line.title, removeFirst: line.kind === 'off-first' })),
        })),
        conflictsWith: filled.filter(line => line.kind === 'conflicts').map(line => line.title),
      })}
    >
      {lines.map((line, i) => (
        <Flex key={`relation ${i}`} gap="2.5" align="flex-end" mb="2.5">
          <Select
            aria-label={`Relation ${i + 1}`}
            value={line.kind}
            onChange={event => set(i, { kind: event.target.value as Kind })}
          >
            {KINDS.map(([kind, words]) => (
              <option key={kind} value={kind}>
                {words}
              </option>
            ))}
          </Select>
          <Box flex="1">
            <TitlePicker
              label={`Title of relation ${i + 1}`}
              value={line.title}
              without={[page.record.id]}
              onChoose={title => set(i, { title })}
            />
          </Box>
          {line.kind === 'needs' && (
            <Box w="120px">
              <TextField label="Version from" value={line.min} onChange={min => set(i, { min })} />
            </Box>
          )}
          <Button onClick={() => setLines(lines.filter((_, at) => at !== i))}>Delete</Button>
        </Flex>
      ))}
      <Button onClick={() => setLines([...lines, { kind: 'needs', title: '', min: '' }])}>Add a relation</Button>
      <Box color="ink2" textStyle="second" mt="2.5">
        Conflicts hold for every release of the title. A relation that would lead back to itself is refused.
      </Box>
    </EditWindow>
  )
}

function linesOf(release: ReleaseRecord | undefined, conflicts: readonly string[]): readonly Line[] {
  return [
    ...(release?.needs ?? []).map(need => ({ kind: 'needs' as const, title: need.title, min: need.min ?? '' })),
    ...(release?.replaces ?? []).map(other => ({
      kind: other.removeFirst ? ('off-first' as const) : ('in-place' as const),
      title: other.title,
      min: '',
    })),
    ...conflicts.map(title => ({ kind: 'conflicts' as const, title, min: '' })),
  ]
}
