import type { OuReach } from '../api/reach'

/** The OUs of a map as a tree, in the order of the directory. */
export interface OuNode {
  readonly ou: OuReach
  readonly children: readonly OuNode[]
}

/** Builds the tree from OUs, each before what is below it; null when there are none. */
export function buildTree(ous: readonly OuReach[]): OuNode | null {
  const children = new Map<string, OuNode[]>()
  let root: OuNode | null = null
  const nodes = ous.map(ou => {
    const below: OuNode[] = []
    children.set(ou.id, below)
    return { ou, children: below }
  })
  for (const node of nodes) {
    const siblings = node.ou.parent === undefined ? undefined : children.get(node.ou.parent)
    if (siblings === undefined) {
      root ??= node
    } else {
      siblings.push(node)
    }
  }
  return root
}

/** A line of the same content as a table. */
export interface TreeLine {
  readonly ou: OuReach
  /** Among what stands in the same OU, from 1 on, and how many those are. */
  readonly place: number
  readonly among: number
  /** Nothing for an OU with none in it. */
  readonly expanded: boolean | undefined
}

/**
 * The lines of the table: an OU, and where it is expanded what stands in it, as far as that has been loaded.
 *
 * @param below what stands in an OU; nothing while it is not known
 */
export function treeLines(
  root: OuReach,
  expanded: ReadonlySet<string>,
  below: (ou: string) => readonly OuReach[] | undefined,
): readonly TreeLine[] {
  const lines: TreeLine[] = []
  const add = (ou: OuReach, place: number, among: number) => {
    const open = expanded.has(ou.id)
    lines.push({ ou, place, among, expanded: ou.below === 0 ? undefined : open })
    if (open) {
      const children = below(ou.id) ?? []
      children.forEach((child, i) => add(child, i + 1, children.length))
    }
  }
  add(root, 1, 1)
  return lines
}
