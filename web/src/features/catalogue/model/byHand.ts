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
    ...(written.version.trim() === '' && { version: 'Give it a version.' }),
    ...(written.install.trim() === '' &&
      written.remove.trim() === '' && { install: 'Write an install command or a removal command.' }),
  }
}

function steps(text: string, command: string): Step[] {
  return command.trim() === '' ? [] : [{ ...emptyStep(), text, command: command.trim() }]
}
