import type { Api } from '../../../shared/api'
import { count, date } from '../../../shared/format'

export type Change = Api['ChangeLine']
export type Size = Api['Size']

/** How somebody came or went, in a few words. */
export function changeWords(kind: string, change: Change): string {
  const why = change.why === undefined ? '' : `: ${change.why}`
  switch (kind) {
    case 'group':
      return `${change.came ? 'added to' : 'deleted from'} ${change.through} in the directory`
    case 'collection':
      return change.why ?? (change.came ? 'satisfies the rule now' : 'does not satisfy the rule any more')
    default:
      return `${change.came ? 'came into' : 'left'} ${change.through}${why}`
  }
}

/** How a collection grew or drained. */
export function trendWords(sizes: readonly Size[], now: number): string {
  const first = sizes[0]
  const last = sizes.at(-1)
  if (first === undefined || last === undefined) {
    return ''
  }
  const since = date(first.at, now)
  return sizes.length === 1
    ? `${count(last.devices)} since ${since}`
    : `${count(first.devices)} on ${since}, ${count(last.devices)} now`
}
