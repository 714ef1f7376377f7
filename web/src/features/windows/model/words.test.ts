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

describe('each day', () => {
  const week = 'Mon Tue Wed Thu Fri Sat Sun'.split(' ')

  it.each(DAYS.map(([day, words], i) => [day, words, week[i]] as const))(
    '%s has its word and place',
    (day, words, expected) => {
      expect(words).toBe(expected)
      expect(openWords({ days: [day], opens: '06:00', minutes: 60 })).toBe(`${words} at 06:00 for 1 h`)
    },
  )

  it('is named when one day alone is missing', () => {
    const days = DAYS.map(([day]) => day).filter(day => day !== 'SUNDAY')
    expect(openWords({ days, opens: '00:00', minutes: 1440 })).toBe('Mon, Tue, Wed, Thu, Fri, Sat at 00:00 for 1 d')
  })
})
