import type { Effects } from '../api/catalogue'

/** What a change does to some devices, after their number; # stands for the title and its release. */
const WORDS: Record<string, string> = {
  gains: 'get #',
  'other-release': 'go to #',
  'other-reason': 'keep #, for another reason',
  loses: 'no longer get #',
  withdrawn: 'are no longer offered #',
  settled: 'are settled on #',
  offered: 'are offered #',
  removed: 'have # removed',
  contested: 'become contested on #',
  later: 'get # later',
  unfit: 'have no variant of # that fits',
  blocked: 'are blocked on #',
  replaced: 'lose #, which is replaced',
  displaced: 'have # kept off',
  waiting: 'wait for a seat of #',
}

export function effectWords(effect: Effects['effects'][number]): string {
  const title = effect.version === undefined ? effect.name : `${effect.name} ${effect.version}`
  return (WORDS[effect.effect] ?? `${effect.effect} #`).replace('#', () => title)
}
