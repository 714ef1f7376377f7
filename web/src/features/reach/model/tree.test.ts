import { describe, expect, it } from 'vitest'
import type { OuReach } from '../api/reach'
import { buildTree, findNode, pathTo } from './tree'
import { NO_COUNTS } from './noCounts'

function ou(id: string, parent?: string): OuReach {
  return {
    id,
    name: id,
    parent,
    depth: 0,
    devices: 0,
    own: 0,
    people: 0,
    fenced: false,
    edited: false,
    counts: { ...NO_COUNTS, none: 0 },
    here: [],
  }
}

const ROOT = buildTree([ou('root'), ou('labs', 'root'), ou('bench', 'labs'), ou('stores', 'labs'), ou('works', 'root')])

describe('the tree of OUs', () => {
  it('keeps the order of the directory at every level', () => {
    expect(ROOT?.children.map(node => node.ou.id)).toEqual(['labs', 'works'])
    expect(ROOT?.children[0]?.children.map(node => node.ou.id)).toEqual(['bench', 'stores'])
  })

  it('is none without OUs', () => {
    expect(buildTree([])).toBeNull()
    expect(findNode(null, 'labs')).toBeNull()
    expect(pathTo(null, 'labs')).toEqual([])
  })

  it('takes the first without a parent for the root', () => {
    expect(buildTree([ou('labs', 'unseen'), ou('bench', 'labs')])?.ou.id).toBe('labs')
  })

  it('finds a node however deep it is', () => {
    expect(findNode(ROOT, 'root')).toBe(ROOT)
    expect(findNode(ROOT, 'stores')?.ou.id).toBe('stores')
    expect(findNode(ROOT, 'moon')).toBeNull()
  })

  it('tells the path from the root', () => {
    expect(pathTo(ROOT, 'stores').map(node => node.ou.id)).toEqual(['root', 'labs', 'stores'])
    expect(pathTo(ROOT, 'root').map(node => node.ou.id)).toEqual(['root'])
    expect(pathTo(ROOT, 'moon')).toEqual([])
  })
})

describe('an OU whose parent is not there', () => {
  it('is the root when it comes first, and left out otherwise', () => {
    expect(buildTree([ou('labs', 'gone'), ou('bench', 'labs')])?.children.map(n => n.ou.id)).toEqual(['bench'])
    expect(buildTree([ou('root'), ou('labs', 'gone')])?.children).toEqual([])
  })
})
