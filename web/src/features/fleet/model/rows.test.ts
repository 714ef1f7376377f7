import { expect, test } from 'vitest'
import { changedRows, withRows } from './rows'

const row = (id: string, line = '') => ({ id, name: id, ou: '', people: [], state: 'idle' as const, line })

test('rows of devices that have said something are asked for, and no others', () => {
  expect(changedRows(['a', 'b', 'c'], { devices: new Set(['c', 'x', 'a']), many: false })).toEqual(['a', 'c'])
  expect(changedRows(['a', 'b'], { devices: new Set(), many: false })).toEqual([])
})

test('where too many have, all rows on the screen are', () => {
  expect(changedRows(['a', 'b'], { devices: new Set(['a']), many: true })).toEqual(['a', 'b'])
})

test('newer rows take the places of the old ones, and the others stay the very same', () => {
  const page = { total: 7, rows: [row('a'), row('b')] }
  const next = withRows(page, [row('b', 'at work'), row('x')])
  expect(next.rows.map(one => [one.id, one.line])).toEqual([
    ['a', ''],
    ['b', 'at work'],
  ])
  expect(next.rows[0]).toBe(page.rows[0])
  expect(next.total).toBe(7)
})

test('a page that has none of them stays the very same', () => {
  const page = { total: 1, rows: [row('a')] }
  expect(withRows(page, [row('b')])).toBe(page)
})
