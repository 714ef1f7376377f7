import type { ReleaseRecord, TitleRecord } from '../api/catalogue'
import { withRelease } from './record'

export type RelationKind = 'needs' | 'in-place' | 'off-first' | 'conflicts'

/** One relation as it is written: to a title, empty while none is chosen, and for a need from which version on. */
export interface Relation {
  readonly kind: RelationKind
  readonly title: string
  readonly min: string
}

export const EMPTY_RELATION: Relation = { kind: 'needs', title: '', min: '' }

export const RELATION_KINDS: readonly (readonly [RelationKind, string])[] = [
  ['needs', 'needs'],
  ['in-place', 'replaces, in place'],
  ['off-first', 'replaces, removing it first'],
  ['conflicts', 'conflicts with'],
]

/** The relations of a release, and the conflicts of its title. */
export function relationsOf(release: ReleaseRecord | undefined, conflicts: readonly string[]): readonly Relation[] {
  return [
    ...(release?.needs ?? []).map(need => ({ kind: 'needs' as const, title: need.title, min: need.min ?? '' })),
    ...(release?.replaces ?? []).map(other => ({
      kind: other.removeFirst ? ('off-first' as const) : ('in-place' as const),
      title: other.title,
      min: '',
    })),
    ...conflicts.map(title => ({ kind: 'conflicts' as const, title, min: '' })),
  ]
}

/** The title with these relations and no other; those without a title are left out. */
export function withRelations(record: TitleRecord, version: string, relations: readonly Relation[]): TitleRecord {
  const chosen = relations.filter(line => line.title !== '')
  return {
    ...withRelease(record, version, release => ({
      ...release,
      needs: chosen
        .filter(line => line.kind === 'needs')
        .map(line => ({ title: line.title, ...(line.min.trim() !== '' && { min: line.min.trim() }) })),
      replaces: chosen
        .filter(line => line.kind === 'in-place' || line.kind === 'off-first')
        .map(line => ({ title: line.title, removeFirst: line.kind === 'off-first' })),
    })),
    conflictsWith: chosen.filter(line => line.kind === 'conflicts').map(line => line.title),
  }
}

/** What is wrong with them: a version is written for a need of no title. */
export function relationsProblem(relations: readonly Relation[]): string | undefined {
  return relations.some(line => line.title === '' && line.kind === 'needs' && line.min.trim() !== '')
    ? 'Choose the title that is needed, or delete the relation.'
    : undefined
}
