import { describe, expect, it } from 'vitest'
import type { OuReach } from '../api/reach'
import { NO_COUNTS } from './noCounts'
import { buildTree, treeLines } from './tree'

function ou(id: string, parent?: string, below = 0): OuReach {
  return {
    id,
    name: id,
    ...(parent !== undefined && { parent }),
    depth: 0,
    devices: 1,
    own: 0,
    people: 0,
    below,
    more: 0,
    moreDevices: 0,
    fenced: false,
    edited: false,
    counts: NO_COUNTS,
    here: [],
  }
}

describe('the tree of a map', () => {
  it('keeps the order of the directory', () => {
    const root = buildTree([ou('root'), ou('b', 'root'), ou('c', 'b'), ou('a', 'root')])
    expect(root?.children.map(child => child.ou.id)).toEqual(['b', 'a'])
    expect(root?.children[0]?.children.map(child => child.ou.id)).toEqual(['c'])
  })

  it('begins with the first, whose parent is elsewhere', () => {
    expect(buildTree([ou('labs', 'root'), ou('micro', 'labs')])?.ou.id).toBe('labs')
  })

  it('is null without OUs', () => {
    expect(buildTree([])).toBeNull()
  })
})

describe('the lines of the table', () => {
  const below: Record<string, OuReach[]> = {
    root: [ou('labs', 'root', 2), ou('works', 'root')],
    labs: [ou('micro', 'labs'), ou('chem', 'labs', 7)],
  }
  const lines = (...expanded: string[]) =>
    treeLines(ou('root', undefined, 2), new Set(expanded), id => below[id]).map(line => [
      line.ou.id,
      `${line.place} of ${line.among}`,
      line.expanded,
    ])

  it('are the first one alone until it is expanded', () => {
    expect(lines()).toEqual([['root', '1 of 1', false]])
  })

  it('have what stands in an expanded OU below it, and know their places', () => {
    expect(lines('root', 'labs')).toEqual([
      ['root', '1 of 1', true],
      ['labs', '1 of 2', true],
      ['micro', '1 of 2', undefined],
      ['chem', '2 of 2', false],
      ['works', '2 of 2', undefined],
    ])
  })

  it('wait for what is not known yet', () => {
    expect(lines('root', 'labs', 'chem').at(3)).toEqual(['chem', '2 of 2', true])
  })

  it('leave out what stands in one that is not shown', () => {
    expect(lines('labs')).toEqual([['root', '1 of 1', false]])
  })
})
