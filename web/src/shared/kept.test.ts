// @vitest-environment jsdom
import { expect, test } from 'vitest'
import { kept, randomDigits } from './kept'

test('what cannot be read any more counts as not kept, and is forgotten', () => {
  localStorage.setItem('one', '{"n":1}')
  localStorage.setItem('broken', '{"n":')
  expect(kept(localStorage, 'one')).toEqual({ n: 1 })
  expect(kept(localStorage, 'broken')).toBeUndefined()
  expect(localStorage.getItem('broken')).toBeNull()
  expect(kept(localStorage, 'nothing')).toBeUndefined()
})

test('random digits are as many as asked for, and others each time', () => {
  expect(randomDigits(20)).toMatch(/^[0-9a-f]{20}$/)
  expect(randomDigits(20)).not.toBe(randomDigits(20))
})
