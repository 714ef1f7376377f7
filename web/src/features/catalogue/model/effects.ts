import type { Effects } from '../api/catalogue'

const WORDS: Record<string, string> = {
  gains: 'get',
  'other-release': 'go to',
  'other-reason': 'keep, for another reason,',
  loses: 'no longer get',
  withdrawn: 'are no longer offered',
  settled: 'are settled on',
  offered: 'are offered',
  removed: 'lose',
  contested: 'become contested on',
  later: 'get later',
  unfit: 'find nothing that fits them of',
  blocked: 'are blocked on',
  replaced: 'have replaced',
  displaced: 'are kept off',
  waiting: 'wait for a seat of',
}

/** What a change does to some devices, after their number. */
export function effectWords(effect: Effects['effects'][number]): string {
  const version = effect.version === undefined ? '' : ` ${effect.version}`
  return `${WORDS[effect.effect] ?? effect.effect} ${effect.name}${version}`
}
