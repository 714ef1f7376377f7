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
].map(key => [key])

const OF_TOPIC: Record<string, Old> = {
  estate: { keys: EVERYTHING, within: AT_ONCE },
  titles: { keys: [['titles']], within: AT_ONCE },
  kits: { keys: [['kits']], within: AT_ONCE },
  windows: { keys: [['windows'], ['device']], within: AT_ONCE },
  directory: { keys: [['directory']], within: AT_ONCE },
  mirrors: { keys: [['mirrors']], within: SOON },
  facts: { keys: [['reach'], ['title'], ['titles'], ['audiences']], within: NOW_AND_THEN },
}

/** What a topic of the server's events makes old; nothing for one that is not known here. */
export function madeOld(topic: string): Old {
  if (topic.startsWith('title:')) {
    const title = topic.slice('title:'.length)
    return {
      keys: [['title', title], ['reach', title], ['trial', title], ['draft'], ['device'], ['effects']],
      within: AT_ONCE,
    }
  }
  if (topic.startsWith('draft:')) {
    return { keys: [['draft'], ['reach'], ['counted']], within: AT_ONCE }
  }
  return OF_TOPIC[topic] ?? { keys: [], within: AT_ONCE }
}
