import { Box, Flex, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import type { Choice, ReleaseRecord } from '../api/catalogue'
import { idOf } from '../../../shared/format'
import { emptyChoice, isMany } from '../model/choices'
import { withRelease } from '../model/record'
import type { Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'
import { Select, TextField } from '../../../shared/ui/TextField'

const KINDS: Record<Choice['kind'], string> = {
  parts: 'any of its parts',
  languages: 'any of its languages',
  channel: 'one channel',
  switch: 'on or off',
  text: 'words',
  number: 'a number',
}

type Allowed = Choice['allowed'][number]

const MIB = 1024 * 1024

/** What a release lets an assignment or a person fix. */
export function ChoicesWindow({
  release,
  editing,
  onClose,
}: {
  release: ReleaseRecord
  editing: Editing
  onClose: () => void
}) {
  const [choices, setChoices] = useState<readonly Choice[]>(
    release.choices.length === 0 ? [emptyChoice()] : release.choices,
  )
  const set = (at: number, change: Partial<Choice>) =>
    setChoices(choices.map((choice, i) => (i === at ? { ...choice, ...change } : choice)))
  const named = choices
    .filter(choice => choice.text.trim() !== '')
    .map(choice => ({ ...choice, id: choice.id === '' ? idOf(choice.text) : choice.id }))
    .map(choice => ({ ...choice, allowed: choice.allowed.filter(one => one.value.trim() !== '') }))
  const files = release.variants.flatMap(v => v.contents.map(c => c.fileName))
  return (
    <EditWindow
      heading={`Choices of ${release.version}`}
      width="820px"
      editing={editing}
      onClose={onClose}
      edit={record => withRelease(record, release.version, r => ({ ...r, choices: named }))}
    >
      {choices.map((choice, i) => (
        <Box
          key={`choice ${i}`}
          borderTopWidth={i === 0 ? '0' : '1px'}
          borderColor="line"
          pt={i === 0 ? '0' : '12px'}
          mb="3"
        >
          <Grid templateColumns="1fr 170px 1fr auto" gap="2.5" alignItems="end" mb="2">
            <TextField label="Name" value={choice.text} onChange={text => set(i, { text })} />
            <Box as="label" fontWeight="600" textStyle="compact">
              Kind
              <Select
                display="block"
                mt="1.5"
                w="100%"
                value={choice.kind}
                onChange={event => set(i, { kind: event.target.value as Choice['kind'] })}
              >
                {Object.entries(KINDS).map(([kind, words]) => (
                  <option key={kind} value={kind}>
                    {words}
                  </option>
                ))}
              </Select>
            </Box>
            <TextField
              label={isMany(choice) ? 'Default, separated by commas' : 'Default'}
              value={choice.usual}
              onChange={usual => set(i, { usual })}
            />
            <Button onClick={() => setChoices(choices.filter((_, at) => at !== i))}>Delete</Button>
          </Grid>
          {choice.kind === 'number' && <Range choice={choice} onChange={change => set(i, change)} />}
          {choice.kind !== 'text' && choice.kind !== 'number' && (
            <Values choice={choice} files={files} onChange={allowed => set(i, { allowed: [...allowed] })} />
          )}
          <Box color="ink2" textStyle="second" mt="1">
            Passed to steps it as <code>{`{choice:${choice.id === '' ? idOf(choice.text) || '…' : choice.id}}`}</code>
          </Box>
        </Box>
      ))}
      <Button onClick={() => setChoices([...choices, emptyChoice()])}>Add a choice</Button>
    </EditWindow>
  )
}

function Range({ choice, onChange }: { choice: Choice; onChange: (change: Partial<Choice>) => void }) {
  const number = (text: string) => (/^-?\d+$/.test(text.trim()) ? { value: Number(text) } : {})
  return (
    <Flex gap="2.5" w="320px">
      <TextField
        label="At least"
        value={choice.least === undefined ? '' : String(choice.least)}
        onChange={text => onChange({ least: undefined, ...rename(number(text), 'least') } as Partial<Choice>)}
      />
      <TextField
        label="At most"
        value={choice.most === undefined ? '' : String(choice.most)}
        onChange={text => onChange({ most: undefined, ...rename(number(text), 'most') } as Partial<Choice>)}
      />
    </Flex>
  )
}

function rename(of: { value?: number }, name: 'least' | 'most'): Partial<Choice> {
  return of.value === undefined ? {} : { [name]: of.value }
}

function Values({
  choice,
  files,
  onChange,
}: {
  choice: Choice
  files: readonly string[]
  onChange: (allowed: readonly Allowed[]) => void
}) {
  const empty: Allowed = { value: '', text: '', reads: '', bytes: 0, file: '' }
  const set = (at: number, change: Partial<Allowed>) =>
    onChange(choice.allowed.map((one, i) => (i === at ? { ...one, ...change } : one)))
  return (
    <>
      {choice.allowed.length > 0 && (
        <Grid
          templateColumns="110px 1fr 1fr 90px 150px auto"
          rowGap="1.5"
          columnGap="2"
          alignItems="end"
          textStyle="second"
        >
          {['Value', 'Shown as', 'Passed to steps', 'Extra MiB', 'Its file', ''].map(head => (
            <Box key={head} color="ink2">
              {head}
            </Box>
          ))}
          {choice.allowed.map((one, i) => (
            <ValueRow
              key={`value ${i}`}
              one={one}
              number={i + 1}
              files={files}
              onChange={change => set(i, change)}
              onTakeOut={() => onChange(choice.allowed.filter((_, at) => at !== i))}
            />
          ))}
        </Grid>
      )}
      <Button mt="1.5" size="sm" onClick={() => onChange([...choice.allowed, empty])}>
        Add a value
      </Button>
    </>
  )
}

function ValueRow({
  one,
  number,
  files,
  onChange,
  onTakeOut,
}: {
  one: Allowed
  number: number
  files: readonly string[]
  onChange: (change: Partial<Allowed>) => void
  onTakeOut: () => void
}) {
  const [mib, setMib] = useState(one.bytes === 0 ? '' : String(one.bytes / MIB))
  return (
    <>
      <Cell label={`Value ${number}`} value={one.value} onChange={value => onChange({ value })} />
      <Cell label={`Value ${number}: shown as`} value={one.text} onChange={text => onChange({ text })} />
      <Cell label={`Value ${number}: passed to steps`} value={one.reads} onChange={reads => onChange({ reads })} />
      <Cell
        label={`Value ${number}: extra MiB`}
        value={mib}
        onChange={text => {
          setMib(text)
          onChange({ bytes: Math.max(0, Math.round(Number(text) * MIB)) || 0 })
        }}
      />
      <Select
        aria-label={`Value ${number}: its file`}
        h="30px"
        textStyle="compact"
        value={one.file}
        onChange={event => onChange({ file: event.target.value })}
      >
        <option value="">none</option>
        {files.map(file => (
          <option key={file}>{file}</option>
        ))}
      </Select>
      <Button size="sm" aria-label={`Delete value ${number}`} onClick={onTakeOut}>
        ×
      </Button>
    </>
  )
}

function Cell({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <Box
      as="input"
      aria-label={label}
      h="30px"
      w="100%"
      minW="0"
      px="2"
      borderWidth="1px"
      borderColor="line"
      borderRadius="md"
      bg="panel"
      textStyle="compact"
      {...{ value, onChange: (event: React.ChangeEvent<HTMLInputElement>) => onChange(event.target.value) }}
    />
  )
}
