import { bytes, idOf } from '../../../shared/format'
import type { Choice, Fixed, ReleaseRecord } from '../api/catalogue'

/** What somebody has fixed: values by the ids of their choices. */
export type Values = Fixed['values']

/** Whether any number of values may be chosen together. */
export function isMany(choice: Pick<Choice, 'kind'>): boolean {
  return choice.kind === 'parts' || choice.kind === 'languages'
}

/** Whether it is chosen from a list of values. */
export function hasValues(choice: Pick<Choice, 'kind'>): boolean {
  return choice.kind !== 'text' && choice.kind !== 'number'
}

/** The values that are chosen, one by one. */
export function chosen(choice: Choice, value: string): readonly string[] {
  return isMany(choice) ? value.split(',').filter(one => one !== '') : [value]
}

/** The value in the reader's words. */
export function valueWords(choice: Choice, value: string): string {
  const words = chosen(choice, value).map(one => {
    const text = choice.allowed.find(a => a.value === one)?.text ?? ''
    return text === '' ? one : text
  })
  return words.join(', ') || 'none'
}

/** The value with one more or one less, in the order of the list. */
export function toggled(choice: Choice, value: string, one: string): string {
  const before = new Set(chosen(choice, value))
  return choice.allowed
    .map(a => a.value)
    .filter(v => (v === one ? !before.has(v) : before.has(v)))
    .join(',')
}

/** The values without those of one choice, or with another. */
export function withValue(values: Values, choice: string, value: string | undefined): Values {
  const { [choice]: _, ...rest } = values
  return value === undefined ? rest : { ...rest, [choice]: value }
}

/** What one value costs to fetch, as words; empty where it costs nothing. */
export function costs(release: ReleaseRecord, one: Choice['allowed'][number]): string {
  const file = release.variants.flatMap(v => v.contents).find(c => c.fileName === one.file)
  const all = one.bytes + (file?.size ?? 0)
  return all === 0 ? '' : bytes(all)
}

/** What is fixed of a release, in words. */
export function fixedWords(release: ReleaseRecord, values: Values): string {
  const words = release.choices
    .filter(choice => values[choice.id] !== undefined)
    .map(
      choice =>
        `${(choice.text === '' ? choice.id : choice.text).toLowerCase()} ${valueWords(choice, values[choice.id] ?? '')}`,
    )
  return words.length === 0 ? 'Default choices.' : `Set: ${words.join(', ')}.`
}

/** A choice as it is written in its window: numbers are text there, so that nothing typed is lost. */
export interface ChoiceFields {
  readonly id: string
  readonly text: string
  readonly kind: Choice['kind']
  readonly usual: string
  readonly least: string
  readonly most: string
  readonly allowed: readonly ValueFields[]
}

export interface ValueFields {
  readonly value: string
  readonly text: string
  readonly reads: string
  /** What it adds to what is fetched, in MiB; empty for nothing. */
  readonly mib: string
  readonly file: string
}

const MIB = 1024 * 1024

export const EMPTY_VALUE: ValueFields = { value: '', text: '', reads: '', mib: '', file: '' }
export const EMPTY_CHOICE: ChoiceFields = {
  id: '',
  text: '',
  kind: 'languages',
  usual: '',
  least: '',
  most: '',
  allowed: [],
}

export function choiceFields(choice: Choice): ChoiceFields {
  return {
    ...choice,
    least: choice.least === undefined ? '' : String(choice.least),
    most: choice.most === undefined ? '' : String(choice.most),
    allowed: choice.allowed.map(({ bytes: size, ...same }) => ({ ...same, mib: mibOf(size) })),
  }
}

/** With as many decimals as tell one byte from the next; empty for nothing. */
function mibOf(size: number): string {
  return size === 0 ? '' : (size / MIB).toFixed(7).replace(/[.]?0+$/, '')
}

/** The choices that are written; those without a name are left out, and so are values without a value. */
export function choicesOf(fields: readonly ChoiceFields[]): Choice[] {
  return fields
    .filter(choice => choice.text.trim() !== '')
    .map(({ least, most, ...choice }) => ({
      ...choice,
      id: choiceId(choice),
      ...(choice.kind === 'number' && least.trim() !== '' && { least: Number(least) }),
      ...(choice.kind === 'number' && most.trim() !== '' && { most: Number(most) }),
      allowed: choice.allowed
        .filter(one => one.value.trim() !== '')
        .map(({ mib, ...one }) => ({ ...one, bytes: Math.round(Number(mib) * MIB) })),
    }))
}

/** What steps call it by. */
export function choiceId(choice: Pick<Choice, 'id' | 'text'>): string {
  return choice.id === '' ? idOf(choice.text) : choice.id
}

/** What is wrong with an end of a number's range. */
export function boundProblem(text: string): string | undefined {
  return /^\s*(-?\d{1,15})?\s*$/.test(text) ? undefined : 'A whole number, or empty for no bound.'
}

/** What is wrong with the size of a value. */
export function sizeProblem(mib: string): string | undefined {
  return /^\s*(\d{1,9}([.]\d+)?)?\s*$/.test(mib) ? undefined : 'A size in MiB, such as 12.5, or empty for none.'
}

/** What is wrong with the name of a choice: one without any content may go without. */
export function nameProblem(choice: ChoiceFields): string | undefined {
  const bare = choice.usual.trim() === '' && choice.allowed.length === 0
  return choice.text.trim() === '' ? (bare ? undefined : 'Give the choice a name.') : idProblem(choice)
}

function idProblem(choice: ChoiceFields): string | undefined {
  return choiceId(choice) === '' ? 'Give the choice a name with letters or digits.' : undefined
}

/** What is wrong with a value of a list. */
export function valueProblem(one: ValueFields): string | undefined {
  const bare = [one.text, one.reads, one.mib, one.file].every(text => text.trim() === '')
  return one.value.trim() === '' && !bare ? 'Fill in the value.' : undefined
}

/** The first thing that is wrong with any of them. */
export function choicesProblem(fields: readonly ChoiceFields[]): string | undefined {
  return fields
    .flatMap(choice => [
      nameProblem(choice),
      ...(hasValues(choice) ? choice.allowed.flatMap(one => [valueProblem(one), sizeProblem(one.mib)]) : []),
      ...(choice.kind === 'number' ? [boundProblem(choice.least), boundProblem(choice.most)] : []),
    ])
    .find(problem => problem !== undefined)
}
