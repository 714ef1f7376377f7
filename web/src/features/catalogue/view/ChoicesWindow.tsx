import { Box, Flex, Grid } from '@chakra-ui/react'
import { FormProvider, useFieldArray, useForm, useFormContext, useWatch } from 'react-hook-form'
import { Button } from '../../../shared/ui/Button'
import { FormSelect, FormText } from '../../../shared/ui/fields'
import type { Choice, ReleaseRecord } from '../api/catalogue'
import type { ChoiceFields } from '../model/choices'
import {
  boundProblem,
  choiceFields,
  choiceId,
  choicesOf,
  choicesProblem,
  EMPTY_CHOICE,
  EMPTY_VALUE,
  hasValues,
  isMany,
  nameProblem,
  sizeProblem,
  valueProblem,
} from '../model/choices'
import { withRelease } from '../model/record'
import type { Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'

const KINDS: Record<Choice['kind'], string> = {
  parts: 'any of its parts',
  languages: 'any of its languages',
  channel: 'one channel',
  switch: 'on or off',
  text: 'words',
  number: 'a number',
}

interface Fields {
  readonly choices: readonly ChoiceFields[]
}

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
  const form = useForm<Fields>({
    mode: 'onChange',
    defaultValues: { choices: release.choices.length === 0 ? [EMPTY_CHOICE] : release.choices.map(choiceFields) },
  })
  const { control } = form
  const list = useFieldArray({ control, name: 'choices' })
  const written = useWatch({ control, compute: (fields: Fields) => fields })
  const files = release.variants.flatMap(v => v.contents.map(c => c.fileName))
  return (
    <FormProvider {...form}>
      <EditWindow
        heading={`Choices of ${release.version}`}
        width="820px"
        editing={editing}
        problem={choicesProblem(written.choices)}
        onClose={onClose}
        edit={record => withRelease(record, release.version, r => ({ ...r, choices: choicesOf(written.choices) }))}
      >
        {list.fields.map((line, i) => (
          <OneChoice
            key={line.id}
            at={i}
            choice={written.choices[i] ?? EMPTY_CHOICE}
            files={files}
            onDelete={() => list.remove(i)}
          />
        ))}
        <Button onClick={() => list.append(EMPTY_CHOICE)}>Add a choice</Button>
      </EditWindow>
    </FormProvider>
  )
}

function OneChoice({
  at,
  choice,
  files,
  onDelete,
}: {
  at: number
  choice: ChoiceFields
  files: readonly string[]
  onDelete: () => void
}) {
  return (
    <Box borderTopWidth={at === 0 ? '0' : '1px'} borderColor="line" pt={at === 0 ? '0' : '12px'} mb="3">
      <Grid templateColumns="1fr 170px 1fr auto" gap="2.5" alignItems="start" mb="2">
        <FormText<Fields>
          name={`choices.${at}.text`}
          label="Name"
          rules={{
            validate: (_, fields) => said(fields.choices[at], nameProblem),
            deps: [`choices.${at}.usual`],
          }}
        />
        <FormSelect<Fields> name={`choices.${at}.kind`} label="Kind" options={Object.entries(KINDS)} />
        <FormText<Fields>
          name={`choices.${at}.usual`}
          label={isMany(choice) ? 'Default, separated by commas' : 'Default'}
          rules={{ deps: [`choices.${at}.text`] }}
        />
        <Button mt="6" aria-label={`Delete choice ${at + 1}`} onClick={onDelete}>
          Delete
        </Button>
      </Grid>
      {choice.kind === 'number' && (
        <Flex gap="2.5" w="420px">
          <FormText<Fields>
            name={`choices.${at}.least`}
            label="At least"
            rules={{ validate: (_, fields) => said(fields.choices[at]?.least, boundProblem) }}
          />
          <FormText<Fields>
            name={`choices.${at}.most`}
            label="At most"
            rules={{ validate: (_, fields) => said(fields.choices[at]?.most, boundProblem) }}
          />
        </Flex>
      )}
      {hasValues(choice) && <Values at={at} files={files} />}
      <Box color="ink2" textStyle="second" mt="1">
        Steps read it as <code>{`{choice:${choiceId(choice) || '…'}}`}</code>
      </Box>
    </Box>
  )
}

const HEADS = ['Value', 'Shown as', 'Given to steps', 'Extra MiB', 'Its file', '']

/** What can be chosen, a line each. */
function Values({ at, files }: { at: number; files: readonly string[] }) {
  const { control } = useFormContext<Fields>()
  const list = useFieldArray({ control, name: `choices.${at}.allowed` })
  return (
    <>
      {list.fields.length > 0 && (
        <Grid
          templateColumns="110px 1fr 1fr 90px 150px auto"
          rowGap="1.5"
          columnGap="2"
          alignItems="start"
          textStyle="second"
        >
          {HEADS.map(head => (
            <Box key={head} color="ink2" aria-hidden>
              {head}
            </Box>
          ))}
          {list.fields.map((line, i) => (
            <ValueRow key={line.id} at={at} one={i} files={files} onDelete={() => list.remove(i)} />
          ))}
        </Grid>
      )}
      <Button mt="1.5" size="sm" onClick={() => list.append(EMPTY_VALUE)}>
        Add a value
      </Button>
    </>
  )
}

function ValueRow({
  at,
  one,
  files,
  onDelete,
}: {
  at: number
  one: number
  files: readonly string[]
  onDelete: () => void
}) {
  const row = `choices.${at}.allowed.${one}` as const
  const label = `Value ${one + 1}`
  const deps = { deps: [`${row}.value` as const] }
  return (
    <>
      <FormText<Fields>
        name={`${row}.value`}
        label={label}
        labelHidden
        rules={{ validate: (_, fields) => said(fields.choices[at]?.allowed[one], valueProblem) }}
      />
      <FormText<Fields> name={`${row}.text`} label={`${label}: shown as`} labelHidden rules={deps} />
      <FormText<Fields> name={`${row}.reads`} label={`${label}: given to steps`} labelHidden rules={deps} />
      <FormText<Fields>
        name={`${row}.mib`}
        label={`${label}: extra MiB`}
        labelHidden
        rules={{ ...deps, validate: (_, fields) => said(fields.choices[at]?.allowed[one]?.mib, sizeProblem) }}
      />
      <FormSelect<Fields>
        name={`${row}.file`}
        label={`${label}: its file`}
        labelHidden
        options={[['', 'none'], ...files.map(file => [file, file] as const)]}
      />
      <Button size="sm" mt="0.5" aria-label={`Delete value ${one + 1}`} onClick={onDelete}>
        ×
      </Button>
    </>
  )
}

/** A problem of what is written, in the form's own way: true where there is none. */
function said<T>(written: T | undefined, problem: (written: T) => string | undefined): string | true {
  return (written === undefined ? undefined : problem(written)) ?? true
}
