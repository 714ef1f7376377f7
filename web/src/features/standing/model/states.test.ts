import { describe, expect, it } from 'vitest'
import type { StateCount } from '../api/states'
import { counted, expectationWords, inGroups, stateWords } from './states'

const STATES: readonly StateCount[] = [
  { state: 'in-place', words: 'in place', group: 'in-place', count: 40 },
  { state: 'unverified', words: 'in place, unverified', group: 'in-place', count: 2 },
  { state: 'waits-window', words: 'waits for its window', group: 'waiting', count: 7 },
  { state: 'failed', words: 'failed', group: 'failed', count: 1 },
  { state: 'nothing', words: 'not assigned', group: 'nothing', count: 10 },
]

describe('the states of a title', () => {
  it('are gathered in groups whose figures add up, without what nobody assigned', () => {
    const groups = inGroups(STATES)
    expect(groups.map(group => [group.id, group.n])).toEqual([
      ['in-place', 42],
      ['waiting', 7],
      ['failed', 1],
    ])
    expect(groups.reduce((sum, group) => sum + group.n, 0)).toBe(50)
    expect(groups[0]?.states).toHaveLength(2)
  })

  it('are counted in the number that fits', () => {
    expect(counted({ words: 'waits for a seat', count: 1 })).toBe('waits for a seat')
    expect(counted({ words: 'waits for a seat', count: 4 })).toBe('wait for a seat')
    expect(counted({ words: 'waits for its window', count: 2 })).toBe('wait for their window')
    expect(counted({ words: 'waits for a title that it needs', count: 2 })).toBe('wait for a title that they need')
    expect(counted({ words: 'in place', count: 4 })).toBe('in place')
  })

  it('are read as words, also while the counts are not there yet', () => {
    expect(stateWords(STATES, 'waits-window')).toBe('waits for its window')
    expect(stateWords(undefined, 'waits-window')).toBe('waits window')
  })
})

describe('what is ahead', () => {
  const say = (expected: Parameters<typeof expectationWords>[0]) => expectationWords(expected, at => at)

  it('is expected by half, and by nine in ten', () => {
    expect(say({ units: 12, half: 'noon', nineInTen: 'five', away: 0 })).toBe(
      'Of the 12 ahead, half are expected by noon, nine in ten by five.',
    )
    expect(say({ units: 1, half: 'noon', nineInTen: 'noon', away: 0 })).toBe('The one ahead is expected by noon.')
  })

  it('is said once where that is the same moment', () => {
    expect(say({ units: 12, half: 'noon', nineInTen: 'noon', away: 0 })).toBe(
      'Nine in ten of the 12 ahead are expected by noon.',
    )
  })

  it('may take longer than can be said', () => {
    expect(say({ units: 12, half: 'noon', away: 0 })).toContain('nine in ten not within two weeks')
    expect(say({ units: 12, away: 0 })).toBe('Of the 12 ahead, most take longer than two weeks.')
  })

  it('does not count devices that are away', () => {
    expect(say({ units: 0, away: 3 })).toBe('3 more on devices that have not called in for two weeks.')
  })
})
