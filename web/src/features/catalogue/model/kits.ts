import type { Kit } from '../api/kits'

/**
 * What somebody wrote of a kit, made to the newest version of it: what another person changed meanwhile stays. Titles are
 * in the writer's order, without those that the other took out, and with those that the other put in behind them.
 */
export function rewritten(newest: Kit, before: Kit, after: Kit): Kit {
  return {
    id: after.id,
    name: after.name === before.name ? newest.name : after.name,
    description: after.description === before.description ? newest.description : after.description,
    titles: merged(newest.titles, before.titles, after.titles),
  }
}

function merged(newest: readonly string[], before: readonly string[], after: readonly string[]): string[] {
  if (after.join('\n') === before.join('\n')) {
    return [...newest]
  }
  const isNew = (title: string) => !before.includes(title)
  return [
    ...after.filter(title => isNew(title) || newest.includes(title)),
    ...newest.filter(title => isNew(title) && !after.includes(title)),
  ]
}
