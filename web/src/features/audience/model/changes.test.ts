import { expect, test } from 'vitest'
import { changeWords, trendWords } from './changes'

const CAME = { member: 'device:d', name: 'QB-LAB-001', came: true, at: '2026-11-20T08:00:00Z', through: 'Chemistry' }

test('who came and went is said by what the audience is', () => {
  expect(changeWords('group', CAME)).toBe('added to Chemistry in the directory')
  expect(changeWords('group', { ...CAME, came: false })).toBe('deleted from Chemistry in the directory')
  expect(changeWords('ou', { ...CAME, why: 'moved from Stores' })).toBe('came into Chemistry: moved from Stores')
  expect(changeWords('ou', { ...CAME, came: false })).toBe('left Chemistry')
  expect(changeWords('collection', { ...CAME, why: 'it asks for ramGiB ge 8, and it has 4' })).toBe(
    'it asks for ramGiB ge 8, and it has 4',
  )
  expect(changeWords('collection', CAME)).toBe('satisfies the rule now')
  expect(changeWords('collection', { ...CAME, came: false })).toBe('does not satisfy the rule any more')
})

test('a collection says how it drained', () => {
  const now = Date.parse('2026-11-28T08:00:00Z')
  const sizes = [
    { at: '2026-11-20T08:00:00Z', devices: 1429 },
    { at: '2026-11-27T08:00:00Z', devices: 329 },
  ]
  expect(trendWords(sizes, now)).toBe('1,429 on 20 Nov, 329 now')
  expect(trendWords(sizes.slice(0, 1), now)).toBe('1,429 since 20 Nov')
  expect(trendWords([], now)).toBe('')
})
