import type { Api } from '../../../shared/api'
import { randomDigits } from '../../../shared/kept'
import type { PartsOf } from '../../../shared/withParts'
import { withParts } from '../../../shared/withParts'

/** An assignment as it is published, drafted and sent. */
export type Assignment = Api['AssignmentDocument']
export type Wave = Api['WaveDocument']
export type Courtesy = Api['Courtesy']
export type Deadline = Api['Deadline']
export type Rollout = Api['Rollout']

/** What opens a sheet: what is known already of whom and what. */
export interface Opening {
  /** Further titles that are assigned alike. */
  readonly also?: readonly string[]
  /** `title:ID` or `kit:ID`. */
  readonly subject: string
  readonly include: readonly string[]
  readonly follows: Assignment['follows']
  readonly intent: Assignment['intent']
}

/** A new assignment, with everything at its default. */
export function blank(id: string, { subject, include, follows, intent }: Opening): Assignment {
  return { id, seq: 0, subject, include: [...include], follows, intent }
}

/** A new id. Waves by share go by it, so that it stays the same while the assignment is written. */
export function newId(): string {
  return `a-${randomDigits(20)}`
}

/** With one more target, or without it. */
export function toggled(list: readonly string[] | undefined, target: string): string[] {
  const before = list ?? []
  return before.includes(target) ? before.filter(one => one !== target) : [...before, target]
}

/** The waves with one of them otherwise; gone where nothing is given. */
export function withWave(waves: readonly Wave[], at: number, wave: Wave | undefined): Wave[] {
  return waves.flatMap((one, i) => (i === at ? (wave === undefined ? [] : [wave]) : [one]))
}

/** A change of how the waves go on; nothing is left where each opens by hand. */
export function rolledOut(before: Rollout | undefined, change: PartsOf<Rollout>): Rollout | undefined {
  const next = withParts(before ?? {}, change)
  return Object.keys(next).length === 0 ? undefined : next
}

/** The parts of the sheet. */
export type Row = 'whom' | 'what' | 'when' | 'waves' | 'otherwise'

const ROW_OF: Record<string, Row> = {
  include: 'whom',
  exclude: 'whom',
  within: 'whom',
  base: 'whom',
  follows: 'what',
  intent: 'what',
  release: 'what',
  subject: 'what',
  choices: 'what',
  from: 'when',
  deadline: 'when',
  windows: 'when',
  waves: 'waves',
  rollout: 'waves',
}

/** The part of the sheet that something wrong stands in, by its place: `assignments[0].include[1]`. */
export function rowOf(place: string): Row {
  const names = place.split(/[.:[\]]+/)
  return names.map(name => ROW_OF[name]).find(row => row !== undefined) ?? 'otherwise'
}

/** Why it cannot be kept yet; nothing where it can. */
export function missing(assignment: Assignment): string | undefined {
  return (assignment.include ?? []).length === 0 ? 'Choose whom it is for.' : undefined
}
