import type { Shown } from './outcomes'

/** A colour of the theme, and what is drawn on it: no outcome is told by its colour alone. */
export interface BandFill {
  readonly colour: string
  readonly image?: string
  readonly size?: string
}

const lines = (token: string, degrees: number, gap: number, width: number) =>
  `repeating-linear-gradient(${degrees}deg, transparent 0 ${gap}px, ${mixed(token)} ${gap}px ${gap + width}px)`

/** Fine ones, which words on it can be read over. */
const uprights = (token: string) =>
  `repeating-linear-gradient(90deg, transparent 0 11px, ${mixed(token, 22)} 11px 13px)`

const dots = (token: string) => `radial-gradient(circle at center, ${mixed(token)} 1.3px, transparent 1.7px)`

function mixed(token: string, weight = 34): string {
  return `color-mix(in srgb, ${colour(token)} ${weight}%, transparent)`
}

/** As the theme's variables are called. */
function colour(token: string): string {
  return `var(--chakra-colors-${token.replaceAll(/[A-Z]/g, letter => `-${letter.toLowerCase()}`)})`
}

const DOTS = '8px 8px'

const FILLS: Record<Shown, BandFill> = {
  required: { colour: 'bandRequired' },
  available: { colour: 'bandAvailable', image: dots('ochre'), size: DOTS },
  uninstall: { colour: 'bandUninstall', image: uprights('onBand') },
  contested: {
    colour: 'bandContested',
    image: `repeating-linear-gradient(90deg, ${colour('bandRequired')} 0 10px, ${colour('bandUninstall')} 10px 20px)`,
  },
  waiting: { colour: 'bandNone', image: lines('required', 90, 9, 3) },
  later: { colour: 'bandNone', image: lines('ink3', 90, 9, 2) },
  blocked: { colour: 'bandNone', image: lines('uninstall', 135, 10, 2) },
  unfit: { colour: 'bandNone', image: dots('ink3'), size: DOTS },
  replaced: { colour: 'bandNone', image: lines('ink3', 135, 10, 2) },
  displaced: { colour: 'bandNone', image: `${lines('ink3', 135, 10, 1)}, ${lines('ink3', 45, 10, 1)}` },
  none: { colour: 'bandNone' },
}

export function bandFill(shown: Shown): BandFill {
  return FILLS[shown]
}

/** How a part that the draft changes is shown: hatched, in the outcome's colours. */
export function draftedFill(shown: Shown): BandFill {
  const [light, dark] = HATCH[shown] ?? ['bandNone', 'line']
  return { colour: light, image: `repeating-linear-gradient(45deg, transparent 0 9px, ${mixed(dark)} 9px 18px)` }
}

const HATCH: Partial<Record<Shown, readonly [string, string]>> = {
  required: ['hatchRequired', 'required'],
  available: ['bandAvailable', 'ochre'],
  uninstall: ['hatchUninstall', 'uninstall'],
  contested: ['hatchUninstall', 'required'],
}

/** Whether words on it are written in the colour for dark grounds. */
export function isDark(shown: Shown): boolean {
  return shown === 'required' || shown === 'uninstall' || shown === 'contested'
}
