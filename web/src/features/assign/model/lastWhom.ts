import { kept } from '../../../shared/kept'
import type { Assignment } from './sheet'

/** Whom the last assignment was for, in this browser. */
export interface LastWhom {
  readonly include: readonly string[]
  readonly follows: Assignment['follows']
  /** Their names. */
  readonly words: string
}

const KEPT = 'rivo.last-whom'

export function lastWhom(): LastWhom | undefined {
  return kept<LastWhom>(localStorage, KEPT)
}

export function keepWhom(whom: LastWhom): void {
  localStorage.setItem(KEPT, JSON.stringify(whom))
}
