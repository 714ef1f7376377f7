import type { Expectation, StateCount } from '../api/states'

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

/**
 * When those that wait or are under way are expected to be as they shall.
 *
 * @param moment says an instant
 */
export function expectationWords(
  { units, half, nineInTen, away }: Expectation,
  moment: (instant: string) => string,
): string {
  const ahead =
    units === 0
      ? []
      : half === undefined
        ? [`Of the ${units === 1 ? 'one' : units} ahead, most take longer than two weeks.`]
        : units === 1
          ? [`The one ahead is expected by ${moment(half)}.`]
          : nineInTen !== undefined && moment(half) === moment(nineInTen)
            ? [`Nine in ten of the ${units} ahead are expected by ${moment(half)}.`]
            : [
                `Of the ${units} ahead, half are expected by ${moment(half)}, ${
                  nineInTen === undefined ? 'nine in ten not within two weeks' : `nine in ten by ${moment(nineInTen)}`
                }.`,
              ]
  return [...ahead, ...(away > 0 ? [`${away} more on devices that have not called in for two weeks.`] : [])].join(' ')
}
