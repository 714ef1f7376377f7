import { describe, expect, it } from 'vitest'
import type { TitleLine } from '../api/fleet'
import { grouped, inOrder, lineOf, unitOf, versions } from './groups'

function line(title: string, group: TitleLine['group'], rest: Partial<TitleLine> = {}): TitleLine {
  return { title, titleName: title, group, state: group, present: false, line: '', ...rest }
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

describe('a title that several people have', () => {
  const lines = [line('a', 'waiting', { person: 'u1' }), line('a', 'in-place', { person: 'u2' }), line('b', 'waiting')]

  it('has a line for each of them', () => {
    expect(new Set(lines.map(unitOf)).size).toBe(3)
    expect(lineOf(lines, 'a', 'u2')).toBe(lines[1])
    expect(lineOf(lines, 'b', undefined)).toBe(lines[2])
  })

  it('is found without a person, too, or with one who has gone', () => {
    expect(lineOf(lines, 'a', undefined)).toBe(lines[0])
    expect(lineOf(lines, 'a', 'u3')).toBe(lines[0])
    expect(lineOf(lines, 'c', 'u1')).toBeUndefined()
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
