import { some } from '../../../shared/format'
import type { Api } from '../../../shared/api'

export type AudienceKind = Api['AudienceLine']['kind']

/** What an assignment follows: the device, or the person; `either` for whom it leaves out, and for waves. */
export type Follows = 'device' | 'person' | 'either'

/** The kinds that are chosen between, and what each is called. OUs and groups serve both sides. */
export const KIND_TABS = [
  { id: 'ou', kinds: ['ou'], words: 'OUs', follows: ['device', 'person'] },
  { id: 'group', kinds: ['group'], words: 'Groups', follows: ['device', 'person'] },
  { id: 'collection', kinds: ['collection'], words: 'Collections', follows: ['device'] },
  { id: 'device', kinds: ['device', 'all-devices'], words: 'Devices', follows: ['device'] },
  { id: 'person', kinds: ['user', 'all-users'], words: 'People', follows: ['person'] },
] as const satisfies readonly {
  id: string
  kinds: readonly AudienceKind[]
  words: string
  follows: readonly Follows[]
}[]

export type KindTab = (typeof KIND_TABS)[number]['id']

/** Those that an assignment can name that follows this. */
export function tabsFor(follows: Follows): readonly (typeof KIND_TABS)[number][] {
  return KIND_TABS.filter(tab => follows === 'either' || (tab.follows as readonly Follows[]).includes(follows))
}

/** How many of a tab match what was typed. */
export function matchesOf(tab: KindTab, found: Api['AudiencesFound'] | undefined): number {
  const kinds: readonly string[] = KIND_TABS.find(one => one.id === tab)?.kinds ?? []
  return (found?.kinds ?? []).filter(one => kinds.includes(one.kind)).reduce((sum, one) => sum + one.matches, 0)
}

/** "412 devices", "37 people", or both. */
export function holdsWords(devices: number, people: number): string {
  return [
    devices > 0 || people === 0 ? some(devices, 'device') : '',
    people > 0 ? some(people, 'person', 'people') : '',
  ]
    .filter(part => part !== '')
    .join(', ')
}
