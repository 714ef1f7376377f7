import { describe, expect, it } from 'vitest'
import type { ShelfNotice } from '../api/shelf'
import { inOrder, laterChoices } from './notices'

const NOW = Date.parse('2026-11-29T10:00:00Z')

function notice(more: Partial<ShelfNotice>): ShelfNotice {
  return { notice: 'n', kind: 'restart', words: {}, state: 'shown', time: '2026-11-29T18:00:00Z', left: 2, ...more }
}

describe('what may be put off', () => {
  it('waits a while, or as long as it may', () => {
    expect(laterChoices(notice({}), NOW)).toEqual([
      { until: '2026-11-29T10:15:00.000Z', minutes: 15 },
      { until: '2026-11-29T11:00:00.000Z', minutes: 60 },
      { until: '2026-11-29T14:00:00.000Z', minutes: 240 },
      { until: '2026-11-29T18:00:00Z' },
    ])
  })

  it('never waits longer than it may', () => {
    expect(laterChoices(notice({ time: '2026-11-29T11:00:00Z' }), NOW).map(one => one.minutes)).toEqual([15, undefined])
    expect(laterChoices(notice({ time: '2026-11-29T09:59:00Z' }), NOW)).toEqual([])
  })

  it('does not wait once it has been put off as often as it may, counts down, or asks nothing', () => {
    expect(laterChoices(notice({ left: 0 }), NOW)).toEqual([])
    expect(laterChoices(notice({ state: 'counting-down' }), NOW)).toEqual([])
    const { time: _, ...tells } = notice({})
    expect(laterChoices(tells, NOW)).toEqual([])
  })
})

it('shows what counts down first, then what asks, then what tells', () => {
  const { time: _, ...tells } = notice({ notice: 'tells' })
  const all = [tells, notice({ notice: 'asks' }), notice({ notice: 'counts', state: 'counting-down' })]
  expect(inOrder(all).map(one => one.notice)).toEqual(['counts', 'asks', 'tells'])
})
