import { hierarchy, type HierarchyNode } from 'd3-hierarchy'
import type { OuNode } from './tree'

/** One band of the map, in pixels from its upper left corner. */
export interface Band {
  readonly id: string
  readonly kind: 'ou' | 'own' | 'gathered'
  readonly node: OuNode
  readonly column: number
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  /** How many OUs a gathered band stands for. */
  readonly gathered: number
  /** How many devices the band stands for. */
  readonly weight: number
  /** Whether there is more below than the map shows. */
  readonly deeper: boolean
  readonly parent: string | null
  readonly first: string | null
  /** Among the bands of the same parent, from 1 on, and how many those are. */
  readonly place: number
  readonly among: number
}

/** Whether two bands look and act alike: the same place, and the very same OU. */
export function sameBand(one: Band, other: Band): boolean {
  const { node, ...place } = one
  const theirs: Omit<Band, 'node'> = other
  return (
    node.ou === other.node.ou &&
    Object.entries(place).every(([key, value]) => theirs[key as keyof typeof place] === value)
  )
}

export interface Layout {
  readonly bands: readonly Band[]
  readonly height: number
  readonly columns: number
}

export interface Space {
  readonly width: number
  readonly height: number
}

const COLUMNS = 4
const GAP = 2
const LINE = 18
/** The share of the width that each column takes. */
const SHARES = [0.135, 0.23, 0.255, 0.38] as const
/** What the first takes at least, so that no word of an organisation's name is broken, as long as that is not more than its part of all. */
const LEAST_FIRST = 84

interface Part {
  readonly id: string
  readonly kind: Band['kind']
  readonly node: OuNode
  readonly weight: number
  readonly gathered: number
  readonly deeper: boolean
  readonly children: readonly Part[]
}

/**
 * Lays a tree out in columns. Heights follow device counts, but no band is lower than a line; when the lines alone are higher than the space,
 * the map is higher than the space.
 */
export function layOut(root: OuNode, space: Space): Layout {
  const tree = hierarchy<Part>(part(root, 0), p => [...p.children])
  const columns = tree.height + 1
  const lefts = leftEdges(space.width, columns)
  const height = Math.max(space.height, leastHeight(tree))
  const bands: Band[] = []
  place(tree, 0, height, { lefts, width: space.width, place: 1, among: 1 }, bands)
  return { bands, height, columns }
}

function part(node: OuNode, depth: number): Part {
  const shown = depth < COLUMNS - 1
  return {
    id: node.ou.id,
    kind: 'ou',
    node,
    weight: node.ou.devices,
    gathered: 0,
    deeper: !shown && node.ou.below > 0,
    children: shown ? childParts(node, depth) : [],
  }
}

function childParts(node: OuNode, depth: number): readonly Part[] {
  if (node.ou.below === 0) {
    return []
  }
  const parts = node.children.map(child => part(child, depth + 1))
  if (node.ou.own > 0) {
    parts.push(leaf(node, 'own', node.ou.own, 0))
  }
  if (node.ou.more > 0) {
    parts.push(leaf(node, 'gathered', node.ou.moreDevices, node.ou.more))
  }
  return parts
}

function leaf(node: OuNode, kind: 'own' | 'gathered', weight: number, gathered: number): Part {
  return { id: `${kind}:${node.ou.id}`, kind, node, weight, gathered, deeper: false, children: [] }
}

function leftEdges(width: number, columns: number): readonly number[] {
  const shares = SHARES.slice(0, columns)
  const whole = shares.reduce((sum, share) => sum + share, 0)
  const first = Math.max((SHARES[0] / whole) * width, Math.min(LEAST_FIRST, width / columns))
  const others = whole - SHARES[0]
  const edges: number[] = [0, first]
  for (const share of shares.slice(1)) {
    edges.push((edges.at(-1) ?? 0) + (share / others) * (width - first))
  }
  return edges
}

function leastHeight(node: HierarchyNode<Part>): number {
  const below = (node.children ?? []).map(leastHeight)
  const sum = below.reduce((a, b) => a + b, 0) + GAP * Math.max(0, below.length - 1)
  return Math.max(LINE, sum)
}

interface Spot {
  readonly lefts: readonly number[]
  readonly width: number
  readonly place: number
  readonly among: number
}

function place(node: HierarchyNode<Part>, y: number, height: number, spot: Spot, bands: Band[]): void {
  const { data, depth, children = [] } = node
  const x = spot.lefts[depth] ?? 0
  const right = children.length > 0 ? (spot.lefts[depth + 1] ?? spot.width) - GAP : spot.width
  bands.push({
    id: data.id,
    kind: data.kind,
    node: data.node,
    column: depth,
    x,
    y,
    width: right - x,
    height,
    gathered: data.gathered,
    weight: data.weight,
    deeper: data.deeper,
    parent: node.parent?.data.id ?? null,
    first: children[0]?.data.id ?? null,
    place: spot.place,
    among: spot.among,
  })
  const heights = share(
    children.map(child => ({ least: leastHeight(child), weight: child.data.weight })),
    height - GAP * Math.max(0, children.length - 1),
  )
  let top = y
  children.forEach((child, i) => {
    const own = heights[i] ?? LINE
    place(child, top, own, { ...spot, place: i + 1, among: children.length }, bands)
    top += own + GAP
  })
}

/** Shares a height out by weight, giving nobody less than their least. */
export function share(parts: readonly { least: number; weight: number }[], height: number): readonly number[] {
  const fixed = new Set<number>()
  for (;;) {
    const free = parts.filter((_, i) => !fixed.has(i))
    const left = height - parts.reduce((sum, p, i) => sum + (fixed.has(i) ? p.least : 0), 0)
    const weight = free.reduce((sum, p) => sum + p.weight, 0)
    const size = (p: { weight: number }) =>
      weight === 0 ? left / Math.max(1, free.length) : (p.weight / weight) * left
    const short = parts.findIndex((p, i) => !fixed.has(i) && size(p) < p.least)
    if (short < 0) {
      return parts.map((p, i) => (fixed.has(i) ? p.least : size(p)))
    }
    fixed.add(short)
  }
}

const AROUND = 600

/**
 * The ids of the bands that are looked at, or nearly: of a map that is much higher than its space only those are drawn.
 *
 * @param scrolled how far one has scrolled, and
 * @param height how much is seen, in pixels
 */
export function bandsNear(bands: readonly Band[], scrolled: number, height: number): ReadonlySet<string> {
  return new Set(
    bands
      .filter(band => band.y < scrolled + height + AROUND && band.y + band.height > scrolled - AROUND)
      .map(band => band.id),
  )
}

/** The band that a key leads to: the arrows within a column and from one to another, Home and End to the first and last of a column. */
export function neighbour(layout: Layout, from: string, key: string): Band | null {
  const band = layout.bands.find(b => b.id === from)
  if (band === undefined) {
    return layout.bands[0] ?? null
  }
  const column = layout.bands.filter(b => b.column === band.column)
  const at = column.indexOf(band)
  switch (key) {
    case 'ArrowUp':
      return column[at - 1] ?? null
    case 'ArrowDown':
      return column[at + 1] ?? null
    case 'Home':
      return column[0] ?? null
    case 'End':
      return column.at(-1) ?? null
    case 'ArrowLeft':
      return layout.bands.find(b => b.id === band.parent) ?? null
    case 'ArrowRight':
      return layout.bands.find(b => b.id === band.first) ?? null
    default:
      return null
  }
}
