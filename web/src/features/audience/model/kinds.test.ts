import { expect, test } from 'vitest'
import { holdsWords, KIND_TABS, matchesOf, tabsFor } from './kinds'

test('what follows the person is assigned to OUs, groups and people, what follows the device to all but people', () => {
  expect(tabsFor('person').map(tab => tab.id)).toEqual(['ou', 'group', 'person'])
  expect(tabsFor('device').map(tab => tab.id)).toEqual(['ou', 'group', 'collection', 'device'])
})

test('everyone counts with the kind that they are', () => {
  const found = {
    lines: [],
    kinds: [
      { kind: 'device' as const, matches: 7 },
      { kind: 'all-devices' as const, matches: 1 },
      { kind: 'ou' as const, matches: 3 },
    ],
  }
  expect(matchesOf('device', found)).toBe(8)
  expect(matchesOf('ou', found)).toBe(3)
  expect(matchesOf('person', found)).toBe(0)
  expect(matchesOf('ou', undefined)).toBe(0)
})

test('whom an assignment leaves out may be of any kind', () => {
  expect(tabsFor('either').map(tab => tab.id)).toEqual(KIND_TABS.map(tab => tab.id))
})

test('what an audience holds is told as far as it holds anything', () => {
  expect(holdsWords(412, 0)).toBe('412 devices')
  expect(holdsWords(0, 37)).toBe('37 people')
  expect(holdsWords(1, 1)).toBe('1 device, 1 person')
  expect(holdsWords(0, 0)).toBe('0 devices')
})
