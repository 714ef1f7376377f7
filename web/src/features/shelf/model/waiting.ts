import type { Coming, Offer } from '../api/shelf'
import type { TextKey } from './texts'

/** What says texts and times in the reader's language. */
interface Says {
  readonly say: (key: TextKey, values?: Readonly<Record<string, string | number>>) => string
  readonly day: (instant: string, withTime?: boolean) => string
  readonly time: (instant: string) => string
}

/** What something waits for, in the reader's words. */
export function waiting(
  one: Pick<Offer | Coming, 'waitsFor' | 'due' | 'line'>,
  { say, day, time }: Says,
  now = Date.now(),
): string {
  const { waitsFor = 'other', due, line } = one
  const isAhead = due !== undefined && Date.parse(due) > now
  if (waitsFor === 'computer' && isAhead) {
    return say('state.waiting.computerAt', { time: time(due) })
  }
  if (waitsFor === 'window' || waitsFor === 'deadline') {
    return isAhead ? say(`state.waiting.${waitsFor}`, { time: day(due, true) }) : say('state.waiting.other', { line })
  }
  return say(`state.waiting.${waitsFor}`, { line })
}
