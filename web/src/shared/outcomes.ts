import type { Api } from './api'

/** What comes out for a device and a title, as the server's description lists it. */
export type Outcome = NonNullable<Api['OuReach']['outcome']>

/** The same, and that no assignment reaches the device. */
export type Shown = Outcome | 'none'

interface Words {
  /** For one device: "Required". */
  readonly name: string
  /** After a number of devices: "12 required". */
  readonly counted: string
  readonly sentence: string
}

const WORDS: Record<Shown, Words> = {
  required: { name: 'Required', counted: 'required', sentence: 'It is installed without anybody asking for it.' },
  available: { name: 'Offered', counted: 'offered', sentence: 'People find it on their shelf and decide themselves.' },
  uninstall: { name: 'Removed', counted: 'removed', sentence: 'It is removed if it is installed.' },
  contested: {
    name: 'Contested',
    counted: 'contested',
    sentence: 'Assignments of equal weight disagree. Nothing is done until somebody settles it.',
  },
  waiting: { name: 'Waiting for a seat', counted: 'wait for a seat', sentence: 'All licence seats are taken.' },
  later: { name: 'Later', counted: 'later', sentence: 'Its wave is not open yet.' },
  blocked: { name: 'Blocked', counted: 'blocked', sentence: 'Something that it needs is missing or forbidden.' },
  unfit: { name: 'Does not fit', counted: 'do not fit', sentence: 'No variant of an offered release fits the device.' },
  replaced: { name: 'Replaced', counted: 'replaced', sentence: 'Another title takes its place.' },
  displaced: {
    name: 'Kept off',
    counted: 'kept off',
    sentence: 'It conflicts with a title that is assigned more strongly.',
  },
  none: { name: 'Not assigned', counted: 'not assigned', sentence: 'No assignment of it reaches the device.' },
}

/** All of them, in the order in which figures and colours are shown. */
export const SHOWN = Object.keys(WORDS) as readonly Shown[]

export function outcomeWords(shown: Shown): Words {
  return WORDS[shown]
}

/** Whether a text, as from an address, names one. */
export function isShown(text: string | undefined): text is Shown {
  return text !== undefined && text in WORDS
}

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
