import { idOf } from '../../../shared/format'
import type { ReleaseRecord, Step, TitleRecord } from '../api/catalogue'
import { emptyStep } from './record'

/** What somebody writes of a release that comes without a file. */
export interface Written {
  readonly name: string
  readonly maker: string
  readonly version: string
  /** A rule; empty for every device. */
  readonly fits: string
  /** Command lines; empty where there is none. */
  readonly install: string
  readonly remove: string
  /** The name in a device's list of installed software; empty where it cannot be seen by one. */
  readonly seenBy: string
  /** For whom it is installed. */
  readonly scope: TitleRecord['scope']
  /** The address of one that is a web page, and installs nothing; undefined for all else. */
  readonly web: string | undefined
}

/** A web page has no versions of its own. */
const PAGE_VERSION = '1'

/** What a web page says of itself, of all that can be written. */
export function asPage(written: Written): Written {
  return { ...written, version: PAGE_VERSION, install: '', remove: '', seenBy: '', web: written.web ?? '' }
}

/** The release as it was written, not offered yet. */
export function writtenRelease(written: Written): ReleaseRecord {
  return {
    version: written.version.trim(),
    offered: false,
    note: 'not offered yet',
    needs: [],
    replaces: [],
    choices: [],
    variants: [
      {
        id: 'all',
        ...(written.fits.trim() !== '' && { fits: written.fits.trim() }),
        asPerson: false,
        contents: [],
        install: steps('Install', written.install),
        remove: steps('Remove', written.remove),
        repair: [],
        presence: {
          any: false,
          checks:
            written.seenBy.trim() === '' ? [] : [{ kind: 'inventory', subject: written.seenBy.trim(), version: '' }],
        },
      },
    ],
  }
}

/** A new title with that release. */
export function writtenTitle(written: Written): TitleRecord {
  return {
    id: idOf(written.name),
    name: written.name.trim(),
    maker: written.maker.trim(),
    about: {
      owner: '',
      category: '',
      description: '',
      information: '',
      privacy: '',
      notes: '',
      approvedBy: '',
      icon: '',
      licence: '',
      web: written.web?.trim() ?? '',
    },
    scope: written.scope,
    asks: { approval: false, licence: false },
    trustedSigners: [],
    conflictsWith: [],
    releases: [writtenRelease(written)],
  }
}

/** What is wrong with each field; nothing where it can be saved. */
export function problemsOf(written: Written): Partial<Record<keyof Written, string>> {
  return {
    ...(idOf(written.name) === '' && { name: 'Give it a name.' }),
    ...(written.web !== undefined &&
      !isWebAddress(written.web) && { web: 'Write its whole address, with https:// before it.' }),
    ...(written.version.trim() === '' && { version: 'Give it a version.' }),
    ...(written.web === undefined &&
      written.install.trim() === '' &&
      written.remove.trim() === '' && { install: 'Write an install command or a removal command.' }),
  }
}

function steps(text: string, command: string): Step[] {
  return command.trim() === '' ? [] : [{ ...emptyStep(), text, command: command.trim() }]
}

export function isWebAddress(text: string): boolean {
  return /^https?:\/\/[^\s/@]+(\/\S*)?$/i.test(text.trim())
}
