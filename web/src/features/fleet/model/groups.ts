import type { TitleLine } from '../api/fleet'

/** The groups of a device's titles, in the order in which they are shown. */
export const GROUPS = [
  { id: 'under-way', name: 'Under way' },
  { id: 'needs', name: 'Needs attention' },
  { id: 'waiting', name: 'Waiting' },
  { id: 'in-place', name: 'In place' },
  { id: 'offered', name: 'Offered on the shelf' },
  { id: 'unasked', name: 'Also installed' },
] as const

export interface Group {
  readonly id: TitleLine['group']
  readonly name: string
  readonly lines: readonly TitleLine[]
}

/** The groups that have something in them. */
export function grouped(lines: readonly TitleLine[]): readonly Group[] {
  return GROUPS.map(group => ({ ...group, lines: lines.filter(line => line.group === group.id) })).filter(
    group => group.lines.length > 0,
  )
}

/** All lines as they stand on the page, from top to bottom. */
export function inOrder(lines: readonly TitleLine[]): readonly TitleLine[] {
  return grouped(lines).flatMap(group => group.lines)
}

/** Tells apart the lines of a device: a title for each person has one for each. */
export function unitOf(line: Pick<TitleLine, 'title' | 'person'>): string {
  return line.person === undefined ? line.title : `${line.title} ${line.person}`
}

/** The line of a title that an address names; without a person in it, the first of the title. */
export function lineOf(
  lines: readonly TitleLine[],
  title: string | undefined,
  person: string | undefined,
): TitleLine | undefined {
  return lines.find(line => line.title === title && line.person === person) ?? lines.find(line => line.title === title)
}

/** "4.1.0 → 4.2.0": what is there and what shall be. A dash stands for not there. */
export function versions(line: TitleLine): string {
  const from = line.present ? (line.from ?? 'some version') : '—'
  if (line.group === 'in-place' || line.group === 'unasked') {
    return line.present ? from : 'absent'
  }
  if (line.to === undefined && line.outcome !== 'uninstall') {
    return from
  }
  return `${from} → ${line.to ?? '—'}`
}
