import { describe, expect, it } from 'vitest'
import type { OuReach } from '../api/reach'
import { bandsNear, layOut, neighbour, share, type Band } from './layout'
import { NO_COUNTS } from './noCounts'
import { buildTree } from './tree'

function ou(id: string, parent: string | undefined, devices: number, own = 0): OuReach {
  return {
    id,
    name: id,
    ...(parent !== undefined && { parent }),
    depth: 0,
    devices,
    own,
    people: 0,
    below: 0,
    more: 0,
    moreDevices: 0,
    fenced: false,
    edited: false,
    counts: { ...NO_COUNTS, none: devices },
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

/** What the server sends: the OUs that are shown, each with what of it is left out. */
function sent(ous: readonly OuReach[], isShown: (ou: OuReach) => boolean = o => o.devices > 0): OuReach[] {
  const shown = ous.filter(isShown)
  return shown.map(one => {
    const children = ous.filter(o => o.parent === one.id)
    const left = children.filter(o => !shown.includes(o))
    return {
      ...one,
      below: children.length,
      more: left.length,
      moreDevices: left.reduce((sum, o) => sum + o.devices, 0),
    }
  })
}

function tree(ous: readonly OuReach[] = sent(OUS)) {
  const root = buildTree(ous)
  if (root === null) {
    throw new Error('no root')
  }
  return root
}

describe('the layout', () => {
  it('makes heights follow device counts', () => {
    const { bands } = layOut(tree(), SPACE)
    const height = (id: string) => bands.find(b => b.id === id)?.height ?? 0
    expect(height('micro') / height('chem')).toBeCloseTo(2, 0)
    expect(height('labs')).toBeGreaterThan(height('works'))
  })

  it('never makes a band lower than a line', () => {
    const { bands } = layOut(tree(), { width: 1000, height: 60 })
    expect(Math.min(...bands.map(b => b.height))).toBeGreaterThanOrEqual(18)
  })

  it('grows beyond the space when the lines do not fit', () => {
    expect(layOut(tree(), { width: 1000, height: 20 }).height).toBeGreaterThan(20)
  })

  it('gathers what was left out, and says how much that is', () => {
    const gathered = layOut(tree(), SPACE).bands.find(b => b.kind === 'gathered')
    expect(gathered).toMatchObject({ gathered: 1, weight: 0, parent: 'root' })
    const all = layOut(tree(sent(OUS, () => true)), SPACE).bands
    expect(all.some(b => b.kind === 'gathered')).toBe(false)
    expect(all.some(b => b.id === 'archive')).toBe(true)
  })

  it('gathers everything in an OU of which nothing is shown', () => {
    const { bands } = layOut(tree(sent(OUS, o => o.id === 'root' || o.id === 'works')), SPACE)
    expect(bands.map(b => b.id)).toEqual(['root', 'works', 'own:works', 'gathered:works', 'gathered:root'])
    expect(bands.find(b => b.id === 'gathered:root')).toMatchObject({ gathered: 2, weight: 90 })
  })

  it('shows devices that stand in an OU itself', () => {
    const { bands } = layOut(tree(), SPACE)
    expect(bands.find(b => b.id === 'own:works')?.node.ou.own).toBe(4)
  })

  it('draws four levels and says where there are more', () => {
    const deep = ['a', 'b', 'c', 'd', 'e'].map((id, i, all) => ou(id, all[i - 1], 5))
    const { bands, columns } = layOut(tree(sent(deep, o => o.id !== 'e')), SPACE)
    expect(columns).toBe(4)
    expect(bands.find(b => b.id === 'd')?.deeper).toBe(true)
  })

  it('gives the first column room for a word where the map is narrow', () => {
    const widths = (width: number) =>
      layOut(tree(), { width, height: 600 })
        .bands.filter(b => b.column === 0)
        .map(b => Math.round(b.width) + 2)
    expect(widths(300)).toEqual([84])
    expect(widths(1000)).toEqual([218])
    expect(widths(240)).toEqual([80])
  })

  it('fills the width: what has nothing below reaches the right edge', () => {
    const { bands } = layOut(tree(), SPACE)
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
  const layout = layOut(tree(), SPACE)

  it.each([
    ['root', 'ArrowRight', 'labs'],
    ['labs', 'ArrowDown', 'works'],
    ['chem', 'ArrowUp', 'micro'],
    ['chem', 'ArrowLeft', 'labs'],
    ['root', 'ArrowLeft', undefined],
    ['chem', 'ArrowRight', undefined],
    ['works', 'Home', 'labs'],
    ['labs', 'End', 'gathered:root'],
  ])('lead from %s by %s to %s', (from, key, to) => {
    expect(neighbour(layout, from, key)?.id).toBe(to)
  })
})

describe('any directory', () => {
  const GAP = 2
  const LINE = 18

  /** A made-up row of numbers that is the same on every run. */
  let state = 11
  const below = (n: number) => {
    state = (state * 1103515245 + 12345) % 2147483648
    return Math.floor((state / 2147483648) * n)
  }

  /** OUs in preorder, whose devices are their own and those below. */
  function grow(id: string, parent: string | undefined, depth: number): OuReach[] {
    const children = depth > 4 ? 0 : depth === 1 && below(4) === 0 ? 30 : below(4)
    const parts = Array.from({ length: children }, (_, i) => grow(`${id}.${i}`, id, depth + 1))
    const own = below(3) === 0 ? 0 : below(40)
    const devices = own + parts.reduce((sum, part) => sum + (part[0]?.devices ?? 0), 0)
    return [ou(id, parent, devices, own), ...parts.flat()]
  }

  const maps = Array.from({ length: 60 }, (_, i) => {
    const ous = grow(`t${i}`, undefined, 0)
    const all = below(2) === 0
    const shown = new Set<string>()
    ous.forEach(o => {
      const level = o.id.split('.').length
      if (o.parent === undefined || (level <= 4 && shown.has(o.parent) && (all || below(4) > 0))) {
        shown.add(o.id)
      }
    })
    const root = tree(sent(ous, o => shown.has(o.id)))
    const space = { width: 400 + below(1200), height: 100 + below(900) }
    return { root, space, map: layOut(root, space) }
  })
  const childrenOf = (bands: readonly Band[], band: Band) => bands.filter(b => b.parent === band.id)

  it('fills the whole width in columns that begin together', () => {
    for (const { map, space } of maps) {
      expect(map.columns).toBe(1 + Math.max(...map.bands.map(b => b.column)))
      expect(map.columns).toBeLessThanOrEqual(4)
      for (const band of map.bands) {
        const lefts = map.bands.filter(b => b.column === band.column).map(b => b.x)
        expect(Math.max(...lefts) - Math.min(...lefts)).toBe(0)
        const next = map.bands.find(b => b.column === band.column + 1)
        const right = band.first === null ? space.width : (next?.x ?? 0) - GAP
        expect(band.x + band.width).toBeCloseTo(right, 6)
        expect(band.width).toBeGreaterThan(0)
      }
      expect(map.bands[0]).toMatchObject({ column: 0, x: 0, y: 0, height: map.height, parent: null })
    }
  })

  it('gives each column its share of the width', () => {
    const deep = maps.find(({ map }) => map.columns === 4)
    const lefts = [0, 1, 2, 3].map(
      column => (deep?.map.bands.find(b => b.column === column)?.x ?? 0) / (deep?.space.width ?? 1),
    )
    expect(lefts.map(left => Math.round(left * 1000))).toEqual([0, 135, 365, 620])
  })

  it('has the parts of a band tile its height, none lower than a line', () => {
    for (const { map, space } of maps) {
      expect(map.height).toBeGreaterThanOrEqual(space.height)
      for (const band of map.bands) {
        const parts = childrenOf(map.bands, band)
        expect(band.height).toBeGreaterThanOrEqual(LINE - 1e-6)
        expect(band.first).toBe(parts[0]?.id ?? null)
        if (parts.length > 0) {
          expect(parts.reduce((sum, p) => sum + p.height, 0) + GAP * (parts.length - 1)).toBeCloseTo(band.height, 5)
          let top = band.y
          for (const [i, part] of parts.entries()) {
            expect(part.y).toBeCloseTo(top, 5)
            expect([part.place, part.among]).toEqual([i + 1, parts.length])
            top += part.height + GAP
          }
        }
      }
    }
  })

  it('is no higher than its space where the lines fit, and just as high as its lines else', () => {
    for (const { map, space } of maps) {
      const least = (band: Band): number => {
        const parts = childrenOf(map.bands, band).map(least)
        return Math.max(LINE, parts.reduce((a, b) => a + b, 0) + GAP * Math.max(0, parts.length - 1))
      }
      const [first] = map.bands
      expect(map.height).toBeCloseTo(Math.max(space.height, first === undefined ? 0 : least(first)), 5)
    }
  })

  it('stands for every device once, and says what it gathers', () => {
    for (const { map } of maps) {
      for (const band of map.bands.filter(b => b.kind === 'ou')) {
        const parts = childrenOf(map.bands, band)
        const { ou: at, children } = band.node
        expect(band.weight).toBe(at.devices)
        expect(band.deeper).toBe(band.column === 3 && at.below > 0)
        if (parts.length === 0) {
          expect(band.column === 3 || at.below === 0).toBe(true)
          continue
        }
        expect(parts.reduce((sum, p) => sum + p.weight, 0)).toBe(at.devices)
        const shown = parts.filter(p => p.kind === 'ou')
        const gathered = parts.find(p => p.kind === 'gathered')
        expect(shown.length + (gathered?.gathered ?? 0)).toBe(at.below)
        expect(parts.some(p => p.kind === 'own')).toBe(at.own > 0)
        expect(parts.filter(p => p.kind !== 'ou').every(p => !p.deeper && p.first === null)).toBe(true)
        expect(shown.map(p => p.id)).toEqual(children.map(c => c.ou.id))
      }
    }
  })

  it('is walked by the arrow keys from every band', () => {
    for (const { map } of maps.slice(0, 20)) {
      for (const band of map.bands) {
        const column = map.bands.filter(b => b.column === band.column)
        const at = column.indexOf(band)
        expect(neighbour(map, band.id, 'ArrowDown')).toBe(column[at + 1] ?? null)
        expect(neighbour(map, band.id, 'ArrowUp')).toBe(column[at - 1] ?? null)
        expect(neighbour(map, band.id, 'ArrowLeft')?.id ?? null).toBe(band.parent)
        expect(neighbour(map, band.id, 'ArrowRight')?.id ?? null).toBe(band.first)
        expect(neighbour(map, band.id, 'Home')).toBe(column[0])
        expect(neighbour(map, band.id, 'End')).toBe(column.at(-1))
        expect(neighbour(map, band.id, 'Tab')).toBeNull()
      }
      expect(neighbour(map, 'nowhere', 'ArrowDown')).toBe(map.bands[0])
    }
    expect(neighbour({ bands: [], height: 0, columns: 0 }, 'nowhere', 'ArrowUp')).toBeNull()
  })
})

describe('sharing a height', () => {
  it('goes by weight, evenly where there is none, and never below what one needs', () => {
    expect(
      share(
        [
          { least: 10, weight: 3 },
          { least: 10, weight: 1 },
        ],
        100,
      ),
    ).toEqual([75, 25])
    expect(
      share(
        [
          { least: 10, weight: 0 },
          { least: 10, weight: 0 },
        ],
        100,
      ),
    ).toEqual([50, 50])
    expect(
      share(
        [
          { least: 10, weight: 99 },
          { least: 10, weight: 1 },
        ],
        100,
      ),
    ).toEqual([90, 10])
    expect(
      share(
        [
          { least: 20, weight: 90 },
          { least: 10, weight: 10 },
        ],
        100,
      ),
    ).toEqual([90, 10])
    expect(share([], 100)).toEqual([])
    expect(
      share(
        [
          { least: 60, weight: 1 },
          { least: 60, weight: 1 },
        ],
        100,
      ),
    ).toEqual([60, 60])
  })
})

describe('the bands that are drawn', () => {
  const band = (id: string, y: number, height: number) => ({ id, y, height }) as Band
  const column = [band('above', 0, 400), band('at', 400, 2000), band('below', 2400, 18), band('far', 2601, 18)]

  it.each([
    [0, ['above', 'at']],
    [999, ['above', 'at']],
    [1000, ['at']],
    [1300, ['at']],
    [1301, ['at', 'below']],
    [1501, ['at', 'below']],
    [1502, ['at', 'below', 'far']],
    [2999, ['at', 'below', 'far']],
    [3000, ['below', 'far']],
    [3018, ['far']],
    [3219, []],
  ])('are those near what is looked at, scrolled by %i', (scrolled, ids) => {
    expect([...bandsNear(column, scrolled, 500)]).toEqual(ids)
  })
})
