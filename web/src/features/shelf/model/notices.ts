import type { ShelfNotice } from '../api/shelf'

/** In minutes. */
const WAITS = [15, 60, 240]
const MINUTE_MS = 60_000

/** Until when something may be put off: after a while, or as long as it may be; nothing where it cannot be any more. */
export interface Later {
  readonly until: string
  /** How long from now; undefined for as long as it may be. */
  readonly minutes?: number
}

export function laterChoices(notice: Pick<ShelfNotice, 'time' | 'left' | 'state'>, now = Date.now()): readonly Later[] {
  if (notice.time === undefined || (notice.left ?? 0) === 0 || notice.state === 'counting-down') {
    return []
  }
  const last = Date.parse(notice.time)
  const waits = WAITS.filter(minutes => now + minutes * MINUTE_MS < last).map(minutes => ({
    until: new Date(now + minutes * MINUTE_MS).toISOString(),
    minutes,
  }))
  return last > now ? [...waits, { until: notice.time }] : waits
}

/** What asks for an answer stands first, what counts down before all else. */
export function inOrder(notices: readonly ShelfNotice[]): readonly ShelfNotice[] {
  const place = (one: ShelfNotice) => (one.state === 'counting-down' ? 0 : one.time !== undefined ? 1 : 2)
  return [...notices].sort((a, b) => place(a) - place(b))
}
