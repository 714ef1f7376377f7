import { describe, expect, it } from 'vitest'
import type { TitleLine } from '../api/fleet'
import { grouped, inOrder, versions } from './groups'

function line(title: string, group: TitleLine['group'], rest: Partial<TitleLine> = {}): TitleLine {
  return { title, titleName: title, group, present: false, line: '', ...rest }
}

describe('the groups of a device', () => {
  const lines = [line('a', 'in-place'), line('b', 'under-way'), line('c', 'in-place')]

  it('come in the order of what is most pressing, and only those that hold something', () => {
    expect(grouped(lines).map(g => g.id)).toEqual(['under-way', 'in-place'])
    expect(inOrder(lines).map(l => l.title)).toEqual(['b', 'a', 'c'])
  })

  it('are none for a device with nothing', () => {
    expect(grouped([])).toEqual([])
  })
})

describe('the versions', () => {
  it.each([
    [line('a', 'under-way', { present: true, from: '4.1.0', to: '4.2.0' }), '4.1.0 → 4.2.0'],
    [line('a', 'waiting', { to: '4.2.0' }), '— → 4.2.0'],
    [line('a', 'waiting', { present: true, from: '3.9', outcome: 'uninstall' }), '3.9 → —'],
    [line('a', 'in-place', { present: true, from: '4.2.0', to: '4.2.0' }), '4.2.0'],
    [line('a', 'in-place', { outcome: 'uninstall' }), 'absent'],
    [line('a', 'needs', { present: true, outcome: 'contested' }), 'some version'],
  ])('of %j are said as %s', (given, words) => {
    expect(versions(given)).toBe(words)
  })
})
