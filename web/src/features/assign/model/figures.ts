import type { Tried, TriedPart } from '../api/assign'

/** A figure of a trial that is shown, in the order in which they are shown. */
export interface TriedWords {
  readonly part: TriedPart
  readonly words: string
  /** Whether somebody should look at it before. */
  readonly warns: boolean
}

const WORDS: readonly TriedWords[] = [
  { part: 'gains', words: 'gain', warns: false },
  { part: 'offered', words: 'newly offered', warns: false },
  { part: 'already', words: 'have it already', warns: false },
  { part: 'loses', words: 'lose', warns: true },
  { part: 'removes', words: 'removed', warns: true },
  { part: 'contested', words: 'newly contested', warns: true },
  { part: 'settled', words: 'settled', warns: false },
  { part: 'unfit', words: 'do not fit', warns: true },
  { part: 'blocked', words: 'blocked', warns: true },
  { part: 'waiting', words: 'wait for a seat', warns: true },
  { part: 'later', words: 'later', warns: false },
  { part: 'stronger', words: 'decided by another assignment', warns: false },
]

/** The figures that are not nought; what it gains is always told. */
export function triedFigures(tried: Tried, intent: string): readonly (TriedWords & { readonly n: number })[] {
  return WORDS.map(one => ({
    ...one,
    words: one.part === 'already' && intent !== 'required' ? 'no change' : one.words,
    n: tried.figures.find(figure => figure.part === one.part)?.n ?? 0,
  })).filter(
    one => one.n > 0 || one.part === (intent === 'available' ? 'offered' : intent === 'required' ? 'gains' : 'removes'),
  )
}

/** Those that fences stop, by name: "Radiology". */
export function stoppedBy(tried: Tried): {
  readonly n: number
  readonly names: string
  readonly parts: readonly string[]
} {
  const fences = tried.leftOut.filter(one => one.by === 'fence')
  return {
    n: fences.reduce((sum, one) => sum + one.n, 0),
    names: fences.map(one => one.name).join(', '),
    parts: fences.map(one => one.part),
  }
}
