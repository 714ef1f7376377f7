import { describe, expect, it } from 'vitest'
import { DAYS, openWords } from './words'

describe('a maintenance window in words', () => {
  it('names its days in the order of the week', () => {
    expect(openWords({ days: ['THURSDAY', 'TUESDAY'], opens: '02:00', minutes: 45 })).toBe(
      'Tue, Thu at 02:00 for 45 min',
    )
  })

  it('is every day when it opens on all of them', () => {
    expect(openWords({ days: DAYS.map(([day]) => day), opens: '22:30', minutes: 90 })).toBe(
      'every day at 22:30 for 1 h 30 min',
    )
  })
})
