import { describe, expect, it } from 'vitest'
import type { OuReach } from '../api/reach'
import { layOut, neighbour, share } from './layout'
import { buildTree, findNode, pathTo } from './tree'

const NONE = { required: 0, uninstall: 0, contested: 0, unfit: 0, none: 0 }

function ou(id: string, parent: string | undefined, devices: number, own = 0): OuReach {
  return {
    id,
    name: id,
    ...(parent !== undefined && { parent }),
    depth: 0,
    devices,
    own,
    people: 0,
    fenced: false,
    edited: false,
    counts: { ...NONE, none: devices },
    here: [],
  }
}

const OUS = [
  ou('root', undefined, 100),
  ou('labs', 'root', 90),
  ou('micro', 'labs', 60),
  ou('chem', 'labs', 30),
  ou('works', 'root', 10, 4),
  ou('hall', 'works', 6),
  ou('archive', 'root', 0),
]
const SPACE = { width: 1000, height: 600 }

function tree(ous = OUS) {
  const root = buildTree(ous)
  if (root === null) {
    throw new Error('no root')
  }
  return root
}

describe('the tree', () => {
  it('keeps the order of the directory', () => {
    expect(tree().children.map(c => c.ou.id)).toEqual(['labs', 'works', 'archive'])
  })

  it('is null without OUs', () => {
    expect(buildTree([])).toBeNull()
  })

  it('finds an OU and the way to it', () => {
    expect(findNode(tree(), 'chem')?.ou.devices).toBe(30)
    expect(pathTo(tree(), 'chem').map(n => n.ou.id)).toEqual(['root', 'labs', 'chem'])
    expect(pathTo(tree(), 'nowhere')).toEqual([])
  })
})

describe('the layout', () => {
  it('makes heights follow device counts', () => {
    const { bands } = layOut(tree(), SPACE, new Set())
    const height = (id: string) => bands.find(b => b.id === id)?.height ?? 0
    expect(height('micro') / height('chem')).toBeCloseTo(2, 0)
    expect(height('labs')).toBeGreaterThan(height('works'))
  })

  it('never makes a band lower than a line', () => {
    const { bands } = layOut(tree(), { width: 1000, height: 60 }, new Set())
    expect(Math.min(...bands.map(b => b.height))).toBeGreaterThanOrEqual(18)
  })

  it('grows beyond the space when the lines do not fit', () => {
    expect(layOut(tree(), { width: 1000, height: 20 }, new Set()).height).toBeGreaterThan(20)
  })

  it('gathers OUs without devices until they are opened', () => {
    const gathered = layOut(tree(), SPACE, new Set()).bands.find(b => b.kind === 'gathered')
    expect(gathered?.gathered).toBe(1)
    const opened = layOut(tree(), SPACE, new Set(['root'])).bands
    expect(opened.some(b => b.kind === 'gathered')).toBe(false)
    expect(opened.some(b => b.id === 'archive')).toBe(true)
  })

  it('gathers the small ones of very many', () => {
    const many = [ou('root', undefined, 1000), ...Array.from({ length: 240 }, (_, i) => ou(`o${i}`, 'root', i + 1))]
    const { bands } = layOut(tree(many), SPACE, new Set())
    expect(bands.find(b => b.kind === 'gathered')?.gathered).toBe(216)
    expect(bands.some(b => b.id === 'o239')).toBe(true)
  })

  it('shows devices that stand in an OU itself', () => {
    const { bands } = layOut(tree(), SPACE, new Set())
    expect(bands.find(b => b.id === 'own:works')?.node.ou.own).toBe(4)
  })

  it('draws four levels and says where there are more', () => {
    const deep = ['a', 'b', 'c', 'd', 'e'].map((id, i, all) => ou(id, all[i - 1], 5))
    const { bands, columns } = layOut(tree(deep), SPACE, new Set())
    expect(columns).toBe(4)
    expect(bands.find(b => b.id === 'd')?.deeper).toBe(true)
  })

  it('fills the width: what has nothing below reaches the right edge', () => {
    const { bands } = layOut(tree(), SPACE, new Set())
    for (const band of bands.filter(b => b.first === null)) {
      expect(band.x + band.width).toBeCloseTo(1000)
    }
  })

  it('shares out the whole height', () => {
    const heights = share(
      [
        { least: 19, weight: 1 },
        { least: 19, weight: 99 },
        { least: 100, weight: 0 },
      ],
      400,
    )
    expect(heights.reduce((a, b) => a + b)).toBeCloseTo(400)
    expect(heights[0]).toBe(19)
    expect(heights[2]).toBe(100)
  })
})

describe('the arrow keys', () => {
  const layout = layOut(tree(), SPACE, new Set())

  it.each([
    ['root', 'ArrowRight', 'labs'],
    ['labs', 'ArrowDown', 'works'],
    ['chem', 'ArrowUp', 'micro'],
    ['chem', 'ArrowLeft', 'labs'],
    ['root', 'ArrowLeft', undefined],
    ['chem', 'ArrowRight', undefined],
  ])('lead from %s by %s to %s', (from, key, to) => {
    expect(neighbour(layout, from, key)?.id).toBe(to)
  })
})
