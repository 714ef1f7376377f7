/** Which of the held answers are old after something has changed, and how soon they are asked for anew. */
export interface Old {
  /** The beginnings of their keys. */
  readonly keys: readonly (readonly string[])[]
  /** How long what else changes is awaited, in milliseconds, so that much that changes is asked for once. */
  readonly within: number
}

const AT_ONCE = 0
const SOON = 1000
/** What goes on without an end, such as facts that arrive from a whole fleet. */
const NOW_AND_THEN = 5000

const EVERYTHING: readonly (readonly string[])[] = [
  'reach',
  'titles',
  'title',
  'kits',
  'mirrors',
  'windows',
  'effects',
  'trial',
  'draft',
  'counted',
  'devices',
  'fleet',
  'device',
  'audiences',
  'audience',
  'audience-list',
  'assignment',
  'assignment-trial',
  'person',
  'rule',
  'waves',
  'states',
  'requests',
  'today',
].map(key => [key])

/** What says of titles whether they are ready to be assigned: in lists, on their pages, and in the draft. */
const READINESS: Old['keys'] = [['title'], ['titles'], ['draft']]

const OF_TOPIC: Record<string, Old> = {
  estate: { keys: EVERYTHING, within: AT_ONCE },
  titles: { keys: [['titles']], within: AT_ONCE },
  kits: { keys: [['kits']], within: AT_ONCE },
  windows: { keys: [['windows'], ['device'], ...READINESS], within: AT_ONCE },
  requests: { keys: [['requests'], ['today'], ['person'], ['states']], within: AT_ONCE },
  directory: { keys: [['directory']], within: AT_ONCE },
  mirrors: { keys: [['mirrors'], ...READINESS], within: SOON },
  facts: {
    keys: ['reach', 'title', 'titles', 'audiences', 'audience', 'audience-list', 'rule', 'waves'].map(key => [key]),
    within: NOW_AND_THEN,
  },
}

/** What a topic of the server's events makes old; nothing for one that is not known here. */
export function madeOld(topic: string): Old {
  if (topic.startsWith('title:')) {
    const title = topic.slice('title:'.length)
    const own = ['title', 'reach', 'trial', 'states'].map(key => [key, title])
    // Lists in which it may stand, by its name or by what it comes to.
    const lists = ['draft', 'counted', 'device', 'devices', 'effects', 'kits', 'mirrors', 'waves', 'today']
    const others = lists.map(key => [key])
    return { keys: [...own, ...others], within: AT_ONCE }
  }
  if (topic.startsWith('draft:')) {
    return {
      keys: ['draft', 'reach', 'counted', 'audience', 'audience-list', 'assignment', 'rule'].map(key => [key]),
      within: AT_ONCE,
    }
  }
  return OF_TOPIC[topic] ?? { keys: [], within: AT_ONCE }
}
