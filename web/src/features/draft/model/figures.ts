import { bytes, count } from '../../../shared/format'
import type { Part, Rehearsal } from '../api/draft'

/** One figure of a rehearsal, and the part of the fleet that it counts. */
export interface Figure {
  readonly part: Part
  readonly n: number
  readonly words: string
}

/** What a whole rehearsal and that of one title have in common. */
type Effect = Pick<Rehearsal, 'gains' | 'loses' | 'removes' | 'removesPresent' | 'newlyContested' | 'settled' | 'bytes'>

/** The figures that are always shown, and those that are shown when they are not nought. */
export function figures(rehearsal: Effect): readonly Figure[] {
  const always: Figure[] = [
    { part: 'gains', n: rehearsal.gains, words: 'gain' },
    { part: 'loses', n: rehearsal.loses, words: 'lose' },
  ]
  const sometimes: Figure[] = [
    { part: 'removes', n: rehearsal.removes, words: 'removed' },
    { part: 'contested', n: rehearsal.newlyContested, words: 'newly contested' },
    { part: 'settled', n: rehearsal.settled, words: 'settled' },
  ]
  return [...always, ...sometimes.filter(figure => figure.n > 0)]
}

/** What is fetched; empty when nothing is. */
export function toFetch(rehearsal: Effect): string {
  return rehearsal.bytes === 0 ? '' : `${bytes(rehearsal.bytes)} to fetch`
}

/** All of an effect in one line: "520 gain, 0 lose, 325 MiB to fetch". */
export function effectWords(effect: Effect): string {
  const parts = figures(effect).map(figure => `${count(figure.n)} ${figure.words}`)
  if (effect.removesPresent > 0) {
    parts.push(`installed on ${count(effect.removesPresent)} now`)
  }
  return [...parts, toFetch(effect)].filter(part => part !== '').join(', ')
}
