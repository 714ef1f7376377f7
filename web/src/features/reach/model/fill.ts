import type { Counts, OuReach } from '../api/reach'

export type FillKind = 'required' | 'uninstall' | 'contested' | 'unfit' | 'none'

/** One stretch of a band's colour; `share` of its width, from 0 to 1. */
export interface Stretch {
  readonly kind: FillKind
  readonly share: number
}

const ORDER: readonly FillKind[] = ['required', 'contested', 'uninstall', 'unfit', 'none']

/** A part of the fleet in proportion, the strongest colour first; stretches of nothing are left out. */
export function proportions(counts: Counts): readonly Stretch[] {
  const whole = ORDER.reduce((sum, kind) => sum + counts[kind], 0)
  return whole === 0
    ? []
    : ORDER.map(kind => ({ kind, share: counts[kind] / whole })).filter(stretch => stretch.share > 0)
}

/** The colour of an outcome on the map: what only offers, waits or gives way leaves a band without one. */
function shown(outcome: OuReach['outcome']): FillKind {
  return ORDER.find(kind => kind === outcome) ?? 'none'
}

/**
 * The colours of a band. One with bands below it shows what is in force at it, so that an assignment can be seen
 * flowing to the right; one without shows its devices in proportion.
 */
export function fill(ou: OuReach, hasBelow: boolean): readonly Stretch[] {
  if (hasBelow || ou.devices === 0) {
    return [{ kind: shown(ou.outcome), share: 1 }]
  }
  return proportions(ou.after ?? ou.counts)
}

/** Whether the draft changes what the band shows. */
export function isEdited(ou: OuReach, hasBelow: boolean): boolean {
  return hasBelow || ou.devices === 0 ? ou.edited : ou.after !== undefined
}

const WORDS: Record<FillKind, string> = {
  required: 'install',
  uninstall: 'removed',
  contested: 'contested',
  unfit: 'do not fit',
  none: 'untouched',
}

/** "37 install, 4 contested". */
export function countsInWords(counts: Counts): string {
  return ORDER.filter(kind => counts[kind] > 0)
    .map(kind => `${counts[kind]} ${WORDS[kind]}`)
    .join(', ')
}
