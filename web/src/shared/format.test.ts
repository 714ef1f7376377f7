import { describe, expect, it } from 'vitest'
import { bytes, count, fromNow, some, stretch, idOf } from './format'

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
