import { expect, test } from 'vitest'
import { hasWords } from './text'

test('each word has to stand in one of the texts', () => {
  expect(hasWords('tool tide', 'Tidegate', 'Toolbox')).toBe(true)
  expect(hasWords('tool lock', 'Tidegate', 'Toolbox')).toBe(false)
})

test('nothing typed stands in everything, and so do spaces around a word', () => {
  expect(hasWords('', undefined)).toBe(true)
  expect(hasWords('  gate ', 'Tidegate', undefined)).toBe(true)
})
