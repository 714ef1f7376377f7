import { expect, test } from 'vitest'
import { withParts } from './withParts'

interface Thing {
  name: string
  base?: string
}

test('parts are changed, put in and taken out; the rest stays', () => {
  const thing: Thing = { name: 'a', base: 'ou' }
  expect(withParts(thing, { name: 'b' })).toEqual({ name: 'b', base: 'ou' })
  expect('base' in withParts(thing, { base: undefined })).toBe(false)
  expect(withParts<Thing>({ name: 'a' }, { base: 'ou' })).toEqual(thing)
  expect(thing).toEqual({ name: 'a', base: 'ou' })
})
