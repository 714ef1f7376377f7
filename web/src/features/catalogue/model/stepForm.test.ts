import { describe, expect, it } from 'vitest'
import type { Step } from '../api/catalogue'
import { emptyStep } from './record'
import type { StepFields } from './stepForm'
import { runs, stepFields, stepOf, stepProblem } from './stepForm'

const full: Step = {
  ...emptyStep(),
  kind: 'script',
  text: 'Set it up',
  command: 'exit 0',
  limitSeconds: 90,
  asPerson: true,
  onlyWhere: 'os eq "linux"',
  onlyWith: 'languages=cy',
  environment: { MODE: 'quiet', LIST: 'a=b' },
  folder: 'D:/work',
  says: 'It did not go in.',
  thenTo: 4,
  failsTo: 5,
}

describe('a step as it is written', () => {
  it.each([
    ['with everything', full],
    ['new', emptyStep()],
    ['that goes on after a failure', { ...emptyStep(), goesOn: true }],
    ['that copies', { ...emptyStep(), kind: 'copy' as const, command: 'a', to: 'b', existing: 'keep' as const }],
  ])('comes back as it went in: %s', (_, step) => {
    expect(stepOf(stepFields(step))).toEqual(step)
  })

  it('keeps newer files unless it is told otherwise, and only where it copies', () => {
    const { existing: _, ...copy } = { ...emptyStep(), kind: 'copy' as const }
    expect(stepOf(stepFields(copy)).existing).toBe('keep-newer')
    expect(stepOf({ ...stepFields(copy), kind: 'run' })).not.toHaveProperty('existing')
  })

  it('has no rule where only spaces are written', () => {
    expect(stepOf({ ...stepFields(full), onlyWhere: '  ' })).not.toHaveProperty('onlyWhere')
  })

  it('leads to the next, or stops, where nothing is chosen', () => {
    const step = stepOf({ ...stepFields(full), thenTo: '', failsTo: '' })
    expect(step).not.toHaveProperty('thenTo')
    expect(step).not.toHaveProperty('failsTo')
    expect(step.goesOn).toBe(false)
    expect(stepOf({ ...stepFields(full), failsTo: 'on' })).toMatchObject({ goesOn: true })
  })

  it('takes a line without anything in it for no variable', () => {
    expect(stepOf({ ...stepFields(full), environment: '\n A = b=c\n\n' }).environment).toEqual({ A: ' b=c' })
  })
})

describe('what is wrong with a step', () => {
  const wrong = (change: Partial<StepFields>) => stepProblem({ ...stepFields(full), ...change })

  it.each<[string, Partial<StepFields>, string]>([
    ['no command', { kind: 'run', command: ' ' }, 'Fill in “Command”.'],
    ['no rule', { kind: 'wait', command: '' }, 'Fill in “Wait until this rule holds”.'],
    ['no exit code', { exitCodes: '0 done\nx' }, '“x” is not read: write a number and one of'],
    ['no name of a variable', { environment: 'MODE=quiet\n=b' }, '“=b” is not read: write NAME=value.'],
    ['no variable', { environment: 'MODE' }, '“MODE” is not read: write NAME=value.'],
    ['no time', { minutes: '' }, 'A step takes up to a day: write the minutes.'],
    ['no number', { minutes: 'long' }, 'A step takes up to a day: write the minutes.'],
    ['no second', { minutes: '0.001' }, 'A step takes up to a day: write the minutes.'],
    ['more than a day', { minutes: '1440.1' }, 'A step takes up to a day: write the minutes.'],
  ])('is said: %s', (_, change, sentence) => {
    expect(wrong(change)?.startsWith(sentence)).toBe(true)
  })

  it('is nothing up to its bounds', () => {
    expect(wrong({})).toBeUndefined()
    expect(wrong({ minutes: '1440' })).toBeUndefined()
    expect(wrong({ minutes: '0.02' })).toBeUndefined()
  })

  it('is not looked for in what its kind does not have', () => {
    expect(wrong({ kind: 'copy', exitCodes: 'x', environment: 'y' })).toBeUndefined()
    expect((['run', 'script', 'copy', 'close', 'wait', 'check'] as const).filter(runs)).toEqual(['run', 'script'])
  })
})
