import { Box, Flex, Grid } from '@chakra-ui/react'
import { FormProvider, useForm, useWatch } from 'react-hook-form'
import { Button } from '../../../shared/ui/Button'
import { FormNumber, FormRule, FormSelect, FormText, FormTick } from '../../../shared/ui/fields'
import type { Choice, Step } from '../api/catalogue'
import type { StepFields } from '../model/stepForm'
import { COMMAND, runs, stepChecks, stepFields, stepOf, stepProblem } from '../model/stepForm'
import type { Edit, Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'
import type { StepPart } from './StepLine'
import { leadWords } from './StepLine'

interface Props {
  step: Step
  isNew: boolean
  /** Which step it is, from 1, among which. */
  number: number
  part: StepPart
  choices: readonly Choice[]
  /** Whether it is of a title for the device, which may have a part for each person. */
  forDevice: boolean
  editing: Editing
  onClose: () => void
  /** What saving it does; without a step it is taken out. */
  change: (step: Step | undefined) => Edit
}

const KINDS: readonly (readonly [Step['kind'], string])[] = [
  ['run', 'Run a command'],
  ['script', 'Run a script'],
  ['copy', 'Copy files'],
  ['close', 'Close programs'],
  ['wait', 'Wait for a rule'],
  ['check', 'Check a rule'],
]

const EXISTING: readonly (readonly [StepFields['existing'], string])[] = [
  ['keep-newer', 'keep newer files'],
  ['keep', 'keep existing files'],
  ['overwrite', 'overwrite'],
]

const COMMAND_HINT =
  '{content} is the folder of the content, {programs} that of programs, {fact:site} a fact of the device, {choice:languages} what is chosen'
const CLOSE_HINT =
  'With commas between them: siltscope.exe, siltview.exe. Whoever has one open is asked to close it, may put it off as a restart may, and at last it is ended'

/** One step, with everything that can be said of it. */
export function StepWindow(props: Props) {
  const { step, isNew, number, part, choices, forDevice, editing, onClose, change } = props
  const form = useForm<StepFields>({ mode: 'onChange', defaultValues: stepFields(step) })
  const written = useWatch({ control: form.control, compute: (fields: StepFields) => fields })
  return (
    <FormProvider {...form}>
      <EditWindow
        heading={isNew ? 'A new step' : 'Edit the step'}
        width="680px"
        editing={editing}
        problem={stepProblem(written)}
        edit={change(stepOf(written))}
        onClose={onClose}
      >
        <Grid templateColumns="150px 1fr" rowGap="2.5" columnGap="4">
          <FormSelect<StepFields> name="kind" label="Step type" options={KINDS} />
          <FormText<StepFields> name="text" label="Description" />
        </Grid>
        <Grid gap="2.5" mt="2.5">
          <Command kind={written.kind} />
          <Conditions choices={choices} />
          <Running kind={written.kind} />
          <Leads number={number} part={part} />
          <Flex gap="5" align="center">
            <FormTick<StepFields> name="asPerson" label="Run as the person signed in" />
            {forDevice && <FormTick<StepFields> name="atSignIn" label="At each person’s next sign-in" />}
            <Box flex="1" />
            {!isNew && (
              <Button variant="text" color="trouble" onClick={() => editing.save(change(undefined), onClose)}>
                Delete this step
              </Button>
            )}
          </Flex>
        </Grid>
      </EditWindow>
    </FormProvider>
  )
}

/** What it does, as its kind has it. */
function Command({ kind }: { kind: Step['kind'] }) {
  const command = { name: 'command', label: COMMAND[kind], rules: checked('command') } as const
  if (kind === 'wait' || kind === 'check') {
    return <FormRule<StepFields> {...command} />
  }
  return (
    <>
      <FormText<StepFields>
        {...command}
        mono
        required
        rows={kind === 'script' ? 6 : 2}
        hint={kind === 'close' ? CLOSE_HINT : COMMAND_HINT}
      />
      {kind === 'copy' && (
        <Grid templateColumns="1fr 200px" gap="4">
          <FormText<StepFields> name="to" label="To" mono required />
          <FormSelect<StepFields> name="existing" label="Existing files" options={EXISTING} />
        </Grid>
      )}
    </>
  )
}

/** On which devices, and with which choice. */
function Conditions({ choices }: { choices: readonly Choice[] }) {
  const values = choices.flatMap(choice =>
    choice.allowed.map(
      one => [`${choice.id}=${one.value}`, `${choice.text}: ${one.text === '' ? one.value : one.text}`] as const,
    ),
  )
  return (
    <Grid templateColumns={values.length > 0 ? '1fr 200px' : '1fr'} gap="4">
      <FormRule<StepFields> name="onlyWhere" label="Only on devices where" rows={1} />
      {values.length > 0 && (
        <FormSelect<StepFields>
          name="onlyWith"
          label="Only with the choice"
          options={[['', 'any choice'], ...values]}
        />
      )}
    </Grid>
  )
}

/** How it is run, for how long, and what its failure is called. */
function Running({ kind }: { kind: Step['kind'] }) {
  return (
    <Grid templateColumns="1fr 1fr" rowGap="2.5" columnGap="4">
      {runs(kind) && (
        <>
          <FormText<StepFields>
            name="exitCodes"
            label="Exit codes"
            mono
            rows={3}
            hint="A line each: 3010 restart. Any other code means failed."
            rules={checked('exitCodes')}
          />
          <FormText<StepFields>
            name="environment"
            label="Environment"
            mono
            rows={3}
            hint="A line each: NAME=value"
            rules={checked('environment')}
          />
        </>
      )}
      <FormNumber<StepFields>
        name="minutes"
        label="Time limit, in minutes"
        min={1}
        max={1440}
        rules={checked('minutes')}
      />
      <FormText<StepFields> name="says" label="Failure message" hint="Empty: the standard message" />
      {runs(kind) && <FormText<StepFields> name="folder" label="Working folder" mono hint="Empty: the content's" />}
    </Grid>
  )
}

/** Which step follows. */
function Leads({ number, part }: { number: number; part: StepPart }) {
  const later = Array.from({ length: Math.max(0, part.last - number) }, (_, i) => number + 1 + i)
  const leads = [...later, part.last + 1].slice(1).map(to => [String(to), `go to ${leadWords(to, part)}`] as const)
  return (
    <Grid templateColumns="1fr 1fr" gap="4">
      <FormSelect<StepFields> name="thenTo" label="On success" options={[['', 'go to the next step'], ...leads]} />
      <FormSelect<StepFields>
        name="failsTo"
        label="On failure"
        options={[['', 'stop'], ['on', 'continue and log'], ...leads]}
      />
    </Grid>
  )
}

function checked(field: keyof typeof stepChecks) {
  return { validate: (_: unknown, fields: StepFields) => stepChecks[field](fields) ?? true }
}
