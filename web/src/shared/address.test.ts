import { expect, test } from 'vitest'
import { changedAddress, goesOn, name, oneOf, readAddress, text, whole } from './address'

const parts = { q: text, ou: name, as: oneOf('map', 'table'), rows: whole(200, 5000) }

test('an address is read part by part, and what it does not say has its usual value', () => {
  expect(readAddress(parts, new URLSearchParams('q=a b&ou=lab&as=table&rows=400'))).toEqual({
    q: 'a b',
    ou: 'lab',
    as: 'table',
    rows: 400,
  })
  expect(readAddress(parts, new URLSearchParams(''))).toEqual({ q: '', ou: undefined, as: 'map', rows: 200 })
})

test('what there is not counts as not said', () => {
  expect(readAddress(parts, new URLSearchParams('as=circle&rows=many&ou='))).toEqual({
    q: '',
    ou: undefined,
    as: 'map',
    rows: 200,
  })
  expect(readAddress(parts, new URLSearchParams('rows=1')).rows).toBe(200)
  expect(readAddress(parts, new URLSearchParams('rows=99999')).rows).toBe(5000)
})

test('a change leaves everything else in the address as it is', () => {
  const before = new URLSearchParams('q=a&ou=lab&other=1')
  expect(changedAddress(parts, before, { ou: 'site' }).toString()).toBe('q=a&ou=site&other=1')
  expect(before.toString()).toBe('q=a&ou=lab&other=1')
})

test('what has its usual value is not said', () => {
  const before = new URLSearchParams('q=a&ou=lab&as=table&rows=400')
  expect(changedAddress(parts, before, { q: '', ou: undefined, as: 'map', rows: 200 }).toString()).toBe('')
  expect(changedAddress(parts, new URLSearchParams(), { as: 'table', rows: 600 }).toString()).toBe('as=table&rows=600')
})

test('a step goes on with the one before when it changes the same soon after', () => {
  const step = { path: '/fleet', names: 'q', at: 1000 }
  expect(goesOn(step, { ...step, at: 2499 })).toBe(true)
  expect(goesOn(step, { ...step, at: 2500 })).toBe(false)
  expect(goesOn(step, { ...step, names: 'state', at: 1001 })).toBe(false)
  expect(goesOn(step, { ...step, path: '/reach', at: 1001 })).toBe(false)
  expect(goesOn(undefined, step)).toBe(false)
})
