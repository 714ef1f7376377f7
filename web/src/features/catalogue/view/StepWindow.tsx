import { Box, Flex, Grid } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import type { Choice, Step } from '../api/catalogue'
import { exitCodes, exitText, led } from '../model/record'
import type { Edit, Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'
import type { StepPart } from './StepLine'
import { leadWords } from './StepLine'
import { Tick } from '../../../shared/ui/fields'
import { NumberField } from '../../../shared/ui/NumberField'
import { RuleField } from '../../../shared/ui/RuleField'
import { Select, TextField } from '../../../shared/ui/TextField'

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

const COMMAND: Record<Step['kind'], string> = {
  run: 'Command',
  script: 'Script',
  copy: 'From',
  close: 'Programs',
  wait: 'Wait until this rule holds',
  check: 'Continue only on devices where',
}

const COMMAND_HINT =
  '{content} is the folder of the content, {programs} that of programs, {fact:site} a fact of the device, {choice:languages} what is chosen'
const CLOSE_HINT =
  'With commas between them: siltscope.exe, siltview.exe. Whoever has one open is asked to close it, may put it off as a restart may, and at last it is ended'

/** One step, with everything that can be said of it. */
export function StepWindow({ step: before, isNew, number, part, choices, forDevice, editing, onClose, change }: Props) {
  const [step, setStep] = useState(before)
  const [codes, setCodes] = useState(exitText(before.exitCodes))
  const [minutes, setMinutes] = useState(String(before.limitSeconds / 60))
  const [where, setWhere] = useState(before.onlyWhere ?? '')
  const [environment, setEnvironment] = useState(
    Object.entries(before.environment)
      .map(([name, value]) => `${name}=${value}`)
      .join('\n'),
  )
  const read = exitCodes(codes)
  const seconds = Math.round(globalThis.Number(minutes) * 60)
  const problem =
    step.command.trim() === ''
      ? `Fill in “${COMMAND[step.kind]}”.`
      : typeof read === 'string'
        ? read
        : seconds >= 1 && seconds <= 86_400
          ? undefined
          : 'A step takes up to a day: write the minutes.'
  const { onlyWhere: _, existing: __, ...rest } = step
  const later = Array.from({ length: Math.max(0, part.last - number) }, (___, i) => number + 1 + i)
  const whole: Step = {
    ...rest,
    limitSeconds: seconds,
    exitCodes: typeof read === 'string' ? [] : read,
    environment: variables(environment),
    ...(where.trim() !== '' && { onlyWhere: where.trim() }),
    ...(step.kind === 'copy' && { existing: step.existing ?? 'keep-newer' }),
  }
  const runs = step.kind === 'run' || step.kind === 'script'
  return (
    <EditWindow
      heading={isNew ? 'A new step' : 'Edit the step'}
      width="680px"
      editing={editing}
      problem={problem}
      edit={change(whole)}
      onClose={onClose}
    >
      <Grid templateColumns="150px 1fr" rowGap="2.5" columnGap="4">
        <Box>
          <Box as="label" fontWeight="600" textStyle="compact">
            Step type
            <Select
              display="block"
              mt="1.5"
              w="100%"
              value={step.kind}
              onChange={event => setStep({ ...step, kind: event.target.value as Step['kind'] })}
            >
              <option value="run">Run a command</option>
              <option value="script">Run a script</option>
              <option value="copy">Copy files</option>
              <option value="close">Close programs</option>
              <option value="wait">Wait for a rule</option>
              <option value="check">Check a rule</option>
            </Select>
          </Box>
        </Box>
        <TextField label="Description" value={step.text} onChange={text => setStep({ ...step, text })} />
      </Grid>
      <Grid gap="2.5" mt="2.5">
        {step.kind === 'wait' || step.kind === 'check' ? (
          <RuleField
            label={COMMAND[step.kind]}
            value={step.command}
            onChange={command => setStep({ ...step, command })}
          />
        ) : (
          <TextField
            label={COMMAND[step.kind]}
            mono
            required
            rows={step.kind === 'script' ? 6 : 2}
            value={step.command}
            hint={step.kind === 'close' ? CLOSE_HINT : COMMAND_HINT}
            onChange={command => setStep({ ...step, command })}
          />
        )}
        {step.kind === 'copy' && (
          <Grid templateColumns="1fr 200px" gap="4">
            <TextField label="To" mono required value={step.to} onChange={to => setStep({ ...step, to })} />
            <Box as="label" fontWeight="600" textStyle="compact">
              Existing files
              <Select
                display="block"
                mt="1.5"
                w="100%"
                value={step.existing ?? 'keep-newer'}
                onChange={event => setStep({ ...step, existing: event.target.value as NonNullable<Step['existing']> })}
              >
                <option value="keep-newer">keep newer files</option>
                <option value="keep">keep existing files</option>
                <option value="overwrite">overwrite</option>
              </Select>
            </Box>
          </Grid>
        )}
        <Grid templateColumns={choices.some(c => c.allowed.length > 0) ? '1fr 200px' : '1fr'} gap="4">
          <RuleField value={where} rows={1} onChange={setWhere} />
          {choices.some(c => c.allowed.length > 0) && (
            <Labelled label="Only with the choice">
              <Select
                aria-label="Only with the choice"
                display="block"
                mt="1.5"
                w="100%"
                value={step.onlyWith}
                onChange={event => setStep({ ...step, onlyWith: event.target.value })}
              >
                <option value="">any choice</option>
                {choices.flatMap(choice =>
                  choice.allowed.map(one => (
                    <option key={`${choice.id}=${one.value}`} value={`${choice.id}=${one.value}`}>
                      {choice.text}: {one.text === '' ? one.value : one.text}
                    </option>
                  )),
                )}
              </Select>
            </Labelled>
          )}
        </Grid>
        <Grid templateColumns="1fr 1fr" rowGap="2.5" columnGap="4">
          {runs && (
            <TextField
              label="Exit codes"
              mono
              rows={3}
              value={codes}
              hint="A line each: 3010 restart. Any other code means failed."
              onChange={setCodes}
            />
          )}
          {runs && (
            <TextField
              label="Environment"
              mono
              rows={3}
              value={environment}
              hint="A line each: NAME=value"
              onChange={setEnvironment}
            />
          )}
          <NumberField label="Time limit, in minutes" value={minutes} min={1} max={1440} onChange={setMinutes} />
          <TextField
            label="Failure message"
            value={step.says}
            hint="Empty: the standard message"
            onChange={says => setStep({ ...step, says })}
          />
          {runs && (
            <TextField
              label="Working folder"
              mono
              value={step.folder}
              hint="Empty: the content's"
              onChange={folder => setStep({ ...step, folder })}
            />
          )}
        </Grid>
        <Grid templateColumns="1fr 1fr" gap="4">
          <Labelled label="On success">
            <Select
              aria-label="On success"
              display="block"
              mt="1.5"
              w="100%"
              value={step.thenTo ?? ''}
              onChange={event => setStep(led(step, numberOf(event.target.value), step.failsTo))}
            >
              <option value="">go to the next step</option>
              {[...later, part.last + 1].slice(1).map(to => (
                <option key={to} value={to}>
                  go to {leadWords(to, part)}
                </option>
              ))}
            </Select>
          </Labelled>
          <Labelled label="On failure">
            <Select
              aria-label="On failure"
              display="block"
              mt="1.5"
              w="100%"
              value={step.failsTo ?? (step.goesOn ? 'on' : '')}
              onChange={event =>
                setStep({
                  ...led(step, step.thenTo, numberOf(event.target.value)),
                  goesOn: event.target.value === 'on',
                })
              }
            >
              <option value="">stop</option>
              <option value="on">continue and log</option>
              {[...later, part.last + 1].slice(1).map(to => (
                <option key={to} value={to}>
                  go to {leadWords(to, part)}
                </option>
              ))}
            </Select>
          </Labelled>
        </Grid>
        <Flex gap="5" align="center">
          <Tick
            label="Run as the person signed in"
            on={step.asPerson}
            onChange={asPerson => setStep({ ...step, asPerson })}
          />
          {forDevice && (
            <Tick
              label="At each person’s next sign-in"
              on={step.atSignIn}
              onChange={atSignIn => setStep({ ...step, atSignIn })}
            />
          )}
          <Box flex="1" />
          {!isNew && (
            <Button variant="text" color="trouble" onClick={() => editing.save(change(undefined), onClose)}>
              Delete this step
            </Button>
          )}
        </Flex>
      </Grid>
    </EditWindow>
  )
}

function variables(text: string): Record<string, string> {
  return Object.fromEntries(
    text
      .split('\n')
      .filter(line => line.includes('='))
      .map(line => [line.slice(0, line.indexOf('=')).trim(), line.slice(line.indexOf('=') + 1)] as const),
  )
}

function numberOf(text: string): number | undefined {
  return /^\d+$/.test(text) ? globalThis.Number(text) : undefined
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box as="label" fontWeight="600" textStyle="compact">
      {label}
      {children}
    </Box>
  )
}
