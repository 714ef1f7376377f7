import { beforeEach, expect, test, vi } from 'vitest'
import { chosenAfter, keepHidden, keptHidden, nextOrder, orderOf, orderText } from './columns'

beforeEach(() => {
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  })
})

test('a head is pressed for up, down, and as it is by itself', () => {
  const up = nextOrder(undefined, 'name')
  expect(up).toEqual({ column: 'name', descending: false })
  const down = nextOrder(up, 'name')
  expect(down).toEqual({ column: 'name', descending: true })
  expect(nextOrder(down, 'name')).toBeUndefined()
  expect(nextOrder(down, 'seen')).toEqual({ column: 'seen', descending: false })
})

test('an order is read from an address as it was written', () => {
  for (const order of [{ column: 'name', descending: false }, { column: 'last-seen', descending: true }, undefined]) {
    expect(orderOf(orderText(order), ['name', 'last-seen'])).toEqual(order)
  }
  expect(orderOf('-gone', ['name'])).toBeUndefined()
})

test('hidden columns are kept, each list its own, and those that are gone are forgotten', () => {
  keepHidden('devices', ['people', 'gone'])
  expect(keptHidden('devices', ['name', 'people'])).toEqual(['people'])
  expect(keptHidden('titles', ['name', 'people'])).toEqual([])
  keepHidden('devices', [])
  expect(keptHidden('devices', ['name', 'people'])).toEqual([])
})

test('rows are chosen one by one, or all from one to another, where they have been loaded', () => {
  const rows = ['a', 'b', undefined, 'd']
  const ids = (index: number) => rows[index]
  const one = chosenAfter(new Set(), ids, undefined, 0)
  expect([...one]).toEqual(['a'])
  expect([...chosenAfter(one, ids, undefined, 0)]).toEqual([])
  expect([...chosenAfter(one, ids, 0, 3)]).toEqual(['a', 'b', 'd'])
  expect([...chosenAfter(new Set(['d']), ids, 3, 1)]).toEqual(['d', 'b'])
  expect(chosenAfter(one, ids, undefined, 2)).toBe(one)
})
