import type { Step } from '../api/catalogue'
import { exitCodes, exitText, led } from './record'

/** A step as it is written in its window: what is a list or a number there is text here, so that nothing typed is lost. */
export interface StepFields {
  readonly kind: Step['kind']
  readonly text: string
  readonly command: string
  readonly to: string
  readonly existing: NonNullable<Step['existing']>
  readonly onlyWhere: string
  readonly onlyWith: string
  readonly exitCodes: string
  readonly environment: string
  readonly minutes: string
  readonly says: string
  readonly folder: string
  /** The number of the step that follows; empty for the next. */
  readonly thenTo: string
  /** The number of the step that follows a failure, "on" for the next, empty for none. */
  readonly failsTo: string
  readonly asPerson: boolean
  readonly atSignIn: boolean
}

/** What the field of the command is called, by the kind of the step. */
export const COMMAND: Record<Step['kind'], string> = {
  run: 'Command',
  script: 'Script',
  copy: 'From',
  close: 'Programs',
  wait: 'Wait until this rule holds',
  check: 'Continue only on devices where',
}

const LONGEST_SECONDS = 86_400

/** Whether it runs something, which has exit codes, variables and a folder. */
export function runs(kind: Step['kind']): boolean {
  return kind === 'run' || kind === 'script'
}

export function stepFields(step: Step): StepFields {
  return {
    kind: step.kind,
    text: step.text,
    command: step.command,
    to: step.to,
    existing: step.existing ?? 'keep-newer',
    onlyWhere: step.onlyWhere ?? '',
    onlyWith: step.onlyWith,
    exitCodes: exitText(step.exitCodes),
    environment: Object.entries(step.environment)
      .map(([name, value]) => `${name}=${value}`)
      .join('\n'),
    minutes: String(step.limitSeconds / 60),
    says: step.says,
    folder: step.folder,
    thenTo: step.thenTo === undefined ? '' : String(step.thenTo),
    failsTo: step.failsTo === undefined ? (step.goesOn ? 'on' : '') : String(step.failsTo),
    asPerson: step.asPerson,
    atSignIn: step.atSignIn,
  }
}

/** The step that is written; what cannot be read of it is left out, and {@link stepProblem} says so. */
export function stepOf(fields: StepFields): Step {
  const { existing, onlyWhere, minutes, thenTo, failsTo, ...same } = fields
  const codes = exitCodes(fields.exitCodes)
  const step: Step = {
    ...same,
    limitSeconds: secondsOf(minutes),
    exitCodes: typeof codes === 'string' ? [] : codes,
    environment: Object.fromEntries(lines(fields.environment).map(variable)),
    goesOn: failsTo === 'on',
    ...(onlyWhere.trim() !== '' && { onlyWhere: onlyWhere.trim() }),
    ...(fields.kind === 'copy' && { existing }),
  }
  return led(step, numberOf(thenTo), numberOf(failsTo))
}

/** What is wrong with each field, where something is. */
export const stepChecks = {
  command: (fields: StepFields) => (fields.command.trim() === '' ? `Fill in “${COMMAND[fields.kind]}”.` : undefined),
  exitCodes: (fields: StepFields) => {
    const codes = runs(fields.kind) ? exitCodes(fields.exitCodes) : []
    return typeof codes === 'string' ? codes : undefined
  },
  environment: (fields: StepFields) => {
    const wrong = runs(fields.kind) ? lines(fields.environment).find(line => variable(line)[0] === '') : undefined
    return wrong === undefined ? undefined : `“${wrong.trim()}” is not read: write NAME=value.`
  },
  minutes: (fields: StepFields) => {
    const seconds = secondsOf(fields.minutes)
    return seconds >= 1 && seconds <= LONGEST_SECONDS ? undefined : 'A step takes up to a day: write the minutes.'
  },
}

/** The first thing that is wrong with it. */
export function stepProblem(fields: StepFields): string | undefined {
  return Object.values(stepChecks)
    .map(check => check(fields))
    .find(problem => problem !== undefined)
}

function secondsOf(minutes: string): number {
  return minutes.trim() === '' ? Number.NaN : Math.round(Number(minutes) * 60)
}

function lines(text: string): readonly string[] {
  return text.split('\n').filter(line => line.trim() !== '')
}

/** The name, empty where there is none, and the value of one line. */
function variable(line: string): readonly [string, string] {
  const at = line.indexOf('=')
  return [line.slice(0, Math.max(0, at)).trim(), line.slice(at + 1)]
}

function numberOf(text: string): number | undefined {
  return /^\d+$/.test(text) ? Number(text) : undefined
}
