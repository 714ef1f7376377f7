import type { DiamondKind } from './Diamond'

/** The outcomes in the order in which figures are shown, with the words that people read. */
export const OUTCOMES = [
  { kind: 'required', counted: 'install', verb: 'Require' },
  { kind: 'uninstall', counted: 'removed', verb: 'Remove' },
  { kind: 'contested', counted: 'contested', verb: 'Contested' },
  { kind: 'unfit', counted: 'do not fit', verb: 'Does not fit' },
] as const satisfies readonly { kind: DiamondKind; counted: string; verb: string }[]

export type Intent = 'required' | 'available' | 'uninstall'

export function intentVerb(intent: Intent): string {
  switch (intent) {
    case 'required':
      return 'Require'
    case 'available':
      return 'Offer'
    case 'uninstall':
      return 'Remove'
  }
}
