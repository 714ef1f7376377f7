import { bytes } from '../../../shared/format'
import type { Choice, Fixed, ReleaseRecord } from '../api/catalogue'

/** What somebody has fixed: values by the ids of their choices. */
export type Values = Fixed['values']

/** Whether any number of values may be chosen together. */
export function isMany(choice: Choice): boolean {
  return choice.kind === 'parts' || choice.kind === 'languages'
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

/** A choice with nothing in it yet. */
export function emptyChoice(): Choice {
  return { id: '', text: '', kind: 'languages', usual: '', allowed: [] }
}
