import { describe, expect, it } from 'vitest'
import {
  between,
  bytes,
  count,
  date,
  fromNow,
  fullInstant,
  some,
  stretch,
  idOf,
  moment,
  timeOfDay,
  dateWithYear,
} from './format'

const NOW = Date.parse('2026-11-23T08:00:00Z')

describe('figures in words', () => {
  it('sets thousands apart', () => {
    expect(count(6480)).toBe('6,480')
  })

  it('knows one from many', () => {
    expect(some(1, 'device')).toBe('1 device')
    expect(some(2, 'person', 'people')).toBe('2 people')
  })

  it.each([
    [512, '512 B'],
    [1536, '1.5 KiB'],
    [412 * 1024 * 1024, '412 MiB'],
    [5.2 * 1024 ** 3, '5.2 GiB'],
  ])('says %d bytes as %s', (n, words) => {
    expect(bytes(n)).toBe(words)
  })

  it.each([
    [0, '0 s'],
    [59, '59 s'],
    [150, '2 min'],
    [3600, '1 h'],
    [3660, '1 h 1 min'],
    [4 * 86400 + 11 * 3600, '4 d 11 h'],
  ])('says a stretch of %d seconds as %s', (seconds, words) => {
    expect(stretch(seconds)).toBe(words)
  })

  it('tells before from after', () => {
    expect(fromNow('2026-11-23T07:58:00Z', NOW)).toBe('2 min ago')
    expect(fromNow('2026-11-23T08:00:30Z', NOW)).toBe('in 30 s')
    expect(fromNow('2026-11-23T08:00:01Z', NOW)).toBe('now')
  })
})

describe('an id made of a name', () => {
  it('has small letters, digits and hyphens', () => {
    expect(idOf(' Parts & pièces ')).toBe('parts-pieces')
    expect(idOf('…')).toBe('')
  })
})

describe('instants where the reader is', () => {
  const instant = new Date(2026, 10, 3, 9, 5, 7).toISOString()

  it('have a time of day to the second', () => {
    expect(timeOfDay(instant)).toBe('09:05:07')
  })

  it('are said by their day, and today by their time', () => {
    expect(date(instant, new Date(2026, 10, 3, 23, 59).getTime())).toBe('today 09:05')
    expect(date(instant, new Date(2026, 10, 4, 0, 0).getTime())).toBe('3 Nov')
    expect(date(instant, new Date(2025, 10, 3, 9, 5).getTime())).toBe('3 Nov')
  })

  it('are whole on asking', () => {
    expect(fullInstant(instant)).toMatch(/^Tuesday,? 3 November 2026 at 09:05:07 \S+/)
  })
})

describe('the borders of units', () => {
  it.each([
    [0, '0 B'],
    [1023, '1023 B'],
    [1024, '1.0 KiB'],
    [99.9 * 1024, '99.9 KiB'],
    [100 * 1024, '100 KiB'],
    [1024 ** 4, '1.0 TiB'],
    [5000 * 1024 ** 4, '5000 TiB'],
  ])('%d bytes are %s', (n, words) => {
    expect(bytes(n)).toBe(words)
  })

  it.each([
    [-5, '0 s'],
    [59.4, '59 s'],
    [60, '1 min'],
    [3599, '59 min'],
    [3600, '1 h'],
    [86399, '23 h 59 min'],
    [86400, '1 d'],
    [90000, '1 d 1 h'],
  ])('%d seconds are %s', (seconds, words) => {
    expect(stretch(seconds)).toBe(words)
  })

  it.each([
    [-2000, '2 s ago'],
    [-1999, 'now'],
    [0, 'now'],
    [1999, 'now'],
    [2000, 'in 2 s'],
  ])('%d ms from now is %s', (ms, words) => {
    expect(fromNow(new Date(NOW + ms).toISOString(), NOW)).toBe(words)
  })
})

describe('any id that is made of a name', () => {
  it('has at most 40 letters, digits and single hyphens, and a letter or digit at both ends', () => {
    for (const name of ['--Água & Öl--', `${'x'.repeat(39)} and more`, '…', `-${'y'.repeat(60)}-`, 'A  b', '7']) {
      expect(idOf(name)).toMatch(/^([a-z0-9]+(-[a-z0-9]+)*)?$/)
      expect(idOf(name).length).toBeLessThanOrEqual(40)
    }
    expect(idOf('--Água & Öl--')).toBe('agua-ol')
    expect(idOf(`-${'y'.repeat(60)}`)).toBe('y'.repeat(40))
    expect(idOf(`${'x'.repeat(39)} and more`)).toBe('x'.repeat(39))
  })
})

describe('moments', () => {
  const at = (text: string) => new Date(text).toISOString()
  const now = new Date('2026-11-23T08:00:00').getTime()

  it('are told to the minute, with the day where it is another', () => {
    expect(moment(at('2026-11-23T10:02:40'), now)).toBe('today 10:02')
    expect(moment(at('2026-12-01T02:30:00'), now)).toBe('Tue 1 Dec 02:30')
  })

  it('are told as a range where they are not the same', () => {
    expect(between(at('2026-11-23T10:02:00'), at('2026-11-24T10:02:00'), now)).toBe(
      'between today 10:02 and Tue 24 Nov 10:02',
    )
    expect(between(at('2026-11-23T10:02:00'), at('2026-11-23T10:02:30'), now)).toBe('about today 10:02')
  })
})

it('says a day of another year with it', () => {
  expect(dateWithYear('2036-11-03T12:00:00Z')).toBe('3 Nov 2036')
})
