import type { Shown } from '../../../shared/outcomes'
import { outcomeWords, SHOWN } from '../../../shared/outcomes'
import type { Counts, OuReach } from '../api/reach'

/** One stretch of a band's colour; `share` of its width, from 0 to 1. */
export interface Stretch {
  readonly kind: Shown
  readonly share: number
}

/** A part of the fleet in proportion, the strongest colour first; stretches of nothing are left out. */
export function proportions(counts: Counts): readonly Stretch[] {
  const whole = SHOWN.reduce((sum, kind) => sum + counts[kind], 0)
  return whole === 0
    ? []
    : SHOWN.map(kind => ({ kind, share: counts[kind] / whole })).filter(stretch => stretch.share > 0)
}

/**
 * The colours of a band. One with bands below it shows what is in force at it, so that an assignment can be seen
 * flowing to the right; one without shows its devices in proportion.
 */
export function fill(ou: OuReach, hasBelow: boolean): readonly Stretch[] {
  if (hasBelow || ou.devices === 0) {
    return [{ kind: ou.outcome ?? 'none', share: 1 }]
  }
  return proportions(ou.after ?? ou.counts)
}

/** Of the width of a band, about where the middle of a short name is. */
const LABEL = 0.12

/** The colour that most of a band's name stands on; nothing where there is no colour. */
export function behindLabel(stretches: readonly Stretch[]): Shown | undefined {
  let end = 0
  return stretches.find(stretch => {
    end += stretch.share
    return end > LABEL
  })?.kind
}

/** Whether the draft changes what the band shows. */
export function isEdited(ou: OuReach, hasBelow: boolean): boolean {
  return hasBelow || ou.devices === 0 ? ou.edited : ou.after !== undefined
}

/** "37 required, 4 contested". */
export function countsInWords(counts: Counts): string {
  return SHOWN.filter(kind => counts[kind] > 0)
    .map(kind => `${counts[kind]} ${outcomeWords(kind).counted}`)
    .join(', ')
}

/** The outcomes that any device has, now or with the draft, in their order. */
export function occurring(now: Counts, after: Counts | undefined): readonly Shown[] {
  return SHOWN.filter(kind => now[kind] > 0 || (after !== undefined && after[kind] > 0))
}
