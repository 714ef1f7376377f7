import type { OuReach } from '../api/reach'

/** The OUs as a tree, in the order of the directory. */
export interface OuNode {
  readonly ou: OuReach
  readonly children: readonly OuNode[]
}

/** Builds the tree from OUs in preorder; null when there are none. */
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

export function findNode(node: OuNode | null, id: string): OuNode | null {
  if (node === null || node.ou.id === id) {
    return node
  }
  for (const child of node.children) {
    const found = findNode(child, id)
    if (found !== null) {
      return found
    }
  }
  return null
}

/** From the root to the node; empty when it is not there. */
export function pathTo(node: OuNode | null, id: string): readonly OuNode[] {
  if (node === null) {
    return []
  }
  if (node.ou.id === id) {
    return [node]
  }
  for (const child of node.children) {
    const rest = pathTo(child, id)
    if (rest.length > 0) {
      return [node, ...rest]
    }
  }
  return []
}
