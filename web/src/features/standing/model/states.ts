import type { StateCount } from '../api/states'

export type Group = StateCount['group']

/** The groups of states, in the order in which they are drawn, with what each is called and its colour. */
const GROUPS: readonly { readonly id: Group; readonly words: string; readonly colour: string }[] = [
  { id: 'in-place', words: 'in place', colour: 'bandRequired' },
  { id: 'gone', words: 'gone', colour: 'hatchUninstall' },
  { id: 'under-way', words: 'under way', colour: 'lagoon' },
  { id: 'waiting', words: 'waiting', colour: 'bandAvailable' },
  { id: 'failed', words: 'failed', colour: 'trouble' },
  { id: 'held', words: 'held', colour: 'ink3' },
  { id: 'offered', words: 'offered, not taken', colour: 'ochre' },
]

export interface GroupCount {
  readonly id: Group
  readonly words: string
  readonly colour: string
  readonly n: number
  readonly states: readonly StateCount[]
}

/** The groups in which something is; what nobody assigned is in none of them. */
export function inGroups(states: readonly StateCount[]): readonly GroupCount[] {
  return GROUPS.map(group => {
    const own = states.filter(state => state.group === group.id)
    return { ...group, states: own, n: own.reduce((sum, state) => sum + state.count, 0) }
  }).filter(group => group.n > 0)
}

/** After a number: "4 wait for a seat". */
export function counted({ words, count }: Pick<StateCount, 'words' | 'count'>): string {
  return count === 1
    ? words
    : words
        .replace(/^waits /, 'wait ')
        .replace(' its ', ' their ')
        .replace('it needs', 'they need')
}

/** "waits-window" as it is written in addresses, in words. */
export function stateWords(states: readonly StateCount[] | undefined, state: string): string {
  return states?.find(one => one.state === state)?.words ?? state.replaceAll('-', ' ')
}
