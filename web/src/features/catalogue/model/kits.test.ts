import { describe, expect, it } from 'vitest'
import type { Kit } from '../api/kits'
import { rewritten } from './kits'

const before: Kit = { id: 'k', name: 'Bench', description: 'For benches', titles: ['a', 'b', 'c'] }

describe('a kit that two people edit', () => {
  it('is what one wrote while nobody else did', () => {
    const after = { ...before, name: 'Lab bench', titles: ['c', 'a'] }
    expect(rewritten(before, before, after)).toEqual(after)
  })

  it('keeps what the other changed and one did not', () => {
    const newest = { ...before, description: 'For all benches', titles: ['c', 'b', 'a'] }
    expect(rewritten(newest, before, { ...before, name: 'Lab bench' })).toEqual({
      id: 'k',
      name: 'Lab bench',
      description: 'For all benches',
      titles: ['c', 'b', 'a'],
    })
  })

  it('keeps what both put in, and leaves out what either took out', () => {
    const newest = { ...before, titles: ['a', 'c', 'theirs'] }
    expect(rewritten(newest, before, { ...before, titles: ['mine', 'b', 'a'] }).titles).toEqual(['mine', 'a', 'theirs'])
  })
})

describe('the titles of a kit', () => {
  it('are those of the newest version where the writer changed none', () => {
    const newest = { ...before, name: 'Bench 2', titles: ['c', 'x'] }
    expect(rewritten(newest, before, before)).toEqual(newest)
  })

  it('count once when both put the same one in', () => {
    const newest = { ...before, titles: ['a', 'b', 'c', 'new'] }
    expect(rewritten(newest, before, { ...before, titles: ['new', 'a', 'b', 'c'] }).titles).toEqual([
      'new',
      'a',
      'b',
      'c',
    ])
  })
})
