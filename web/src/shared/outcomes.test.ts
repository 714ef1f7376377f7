import { expect, it } from 'vitest'
import { intentVerb, isShown, outcomeWords, SHOWN } from './outcomes'

it('has a verb for each intent', () => {
  expect([intentVerb('required'), intentVerb('available'), intentVerb('uninstall')]).toEqual([
    'Require',
    'Offer',
    'Remove',
  ])
})

it('has words of its own for each outcome, in one order', () => {
  expect(SHOWN).toHaveLength(11)
  expect(SHOWN[0]).toBe('required')
  expect(SHOWN.at(-1)).toBe('none')
  for (const part of ['name', 'counted', 'sentence'] as const) {
    expect(new Set(SHOWN.map(shown => outcomeWords(shown)[part])).size, part).toBe(SHOWN.length)
  }
})

it('knows an outcome from another text', () => {
  expect(SHOWN.every(isShown)).toBe(true)
  expect(isShown('moonlit')).toBe(false)
  expect(isShown(undefined)).toBe(false)
})
