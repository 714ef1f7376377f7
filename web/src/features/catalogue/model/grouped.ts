import type { TitleLine } from '../api/catalogue'

/** By what the list is gathered. */
export type By = 'category' | 'maker'

export interface TitleGroup {
  readonly name: string
  readonly titles: readonly TitleLine[]
}

/** The titles that have every word of the search in them, gathered; those without a group come last. */
export function grouped(titles: readonly TitleLine[], search: string, by: By): readonly TitleGroup[] {
  const words = search
    .toLowerCase()
    .split(/\s+/)
    .filter(word => word !== '')
  const groups = new Map<string, TitleLine[]>()
  for (const title of titles) {
    const text = `${title.name} ${title.maker} ${title.category} ${title.description} ${title.id}`.toLowerCase()
    if (words.every(word => text.includes(word))) {
      const name = by === 'category' ? title.category : title.maker
      groups.set(name, [...(groups.get(name) ?? []), title])
    }
  }
  return [...groups]
    .map(([name, found]) => ({ name, titles: found.toSorted((a, b) => a.name.localeCompare(b.name)) }))
    .toSorted((a, b) => Number(a.name === '') - Number(b.name === '') || a.name.localeCompare(b.name))
}
