import type { Api } from '../../../shared/api'

/** A line of a rule as the server reads it, with its figures. */
export type RuleLine = Api['RuleLine']
export type Attribute = Api['AttributeLine']

/**
 * A clause of a rule, or a group of them, as it is edited. Its text is what counts: {@link print} writes it, the server reads it.
 *
 * `all`, `any` and `none` hold parts; `some` holds one part about one and the same element of a complex attribute; `has` says that there is an
 * element; `clause` compares.
 */
export interface RuleNode {
  readonly kind: RuleLine['kind']
  readonly attribute: string
  readonly operator: string
  readonly value: string
  readonly parts: readonly RuleNode[]
}

/** Where a node stands: the places on the way to it. */
export type Path = readonly number[]

export function group(kind: 'all' | 'any' | 'none', parts: readonly RuleNode[]): RuleNode {
  return { kind, attribute: '', operator: '', value: '', parts }
}

export function clause(attribute: string, operator: string, value: string): RuleNode {
  return { kind: 'clause', attribute, operator, value, parts: [] }
}

/** A clause that is written first: about one attribute, or about a part of a complex one such as `software.name`. */
export function emptyClause(attribute: string, attributes: readonly Attribute[]): RuleNode {
  const type = typeOf(attribute, attributes)
  const dot = attribute.indexOf('.')
  const simple = (name: string) => clause(name, type === 'number' || type === 'version' ? 'ge' : 'eq', '')
  return dot > 0 && COMPLEX.includes(attribute.slice(0, dot).toLowerCase())
    ? {
        kind: 'some',
        attribute: attribute.slice(0, dot),
        operator: '',
        value: '',
        parts: [simple(attribute.slice(dot + 1))],
      }
    : simple(attribute)
}

export const COMPLEX = ['software', 'present', 'people']

/** The type of an attribute; a text where it is one that devices report of their own. */
export function typeOf(attribute: string, attributes: readonly Attribute[]): Attribute['type'] {
  return attributes.find(one => one.name.toLowerCase() === attribute.toLowerCase())?.type ?? 'text'
}

/** What the server has read, as it is edited. A rule of one clause stands in a group of one, so that more can be added. */
export function fromLine(line: RuleLine): RuleNode {
  const node = (one: RuleLine): RuleNode => ({
    kind: one.kind,
    attribute: one.attribute,
    operator: one.operator,
    value: one.value,
    parts: one.parts.map(node),
  })
  const whole = node(line)
  return whole.kind === 'all' ? whole : group('all', [whole])
}

const NUMBER = /^-?\d+(\.\d+)?$/

function literal(node: RuleNode, complex: string, attributes: readonly Attribute[]): string {
  const type = typeOf(complex === '' ? node.attribute : `${complex}.${node.attribute}`, attributes)
  return type === 'number' && NUMBER.test(node.value.trim()) ? node.value.trim() : JSON.stringify(node.value)
}

/** The text of a rule, in the rule language. Empty for one without clauses. */
export function print(node: RuleNode, attributes: readonly Attribute[], complex = ''): string {
  const parts = node.parts
    .map(part => ({ part, text: print(part, attributes, complex) }))
    .filter(one => one.text !== '')
  const joined = (word: string, inner: RuleNode['kind']) =>
    parts
      .map(({ part, text }) => (parts.length > 1 && part.kind === inner && part.parts.length > 1 ? `(${text})` : text))
      .join(` ${word} `)
  switch (node.kind) {
    case 'all':
      return joined('and', 'any')
    case 'any':
      return parts.map(one => one.text).join(' or ')
    case 'none':
      return parts.length === 0 ? '' : `not (${parts.map(one => one.text).join(' or ')})`
    case 'some':
      return `${node.attribute}[${node.parts.map(part => print(part, attributes, node.attribute)).join(' and ')}]`
    case 'has':
      return `${node.attribute} pr`
    case 'clause':
      return node.operator === 'pr'
        ? `${node.attribute} pr`
        : `${node.attribute} ${node.operator} ${literal(node, complex, attributes)}`
  }
}

/** The node that stands at a place. */
export function at(root: RuleNode, path: Path): RuleNode | undefined {
  return path.reduce<RuleNode | undefined>((node, i) => node?.parts[i], root)
}

/** The tree with another node at a place; without it where none is given. */
export function replaced(root: RuleNode, path: Path, node: RuleNode | undefined): RuleNode {
  const [first, ...rest] = path
  if (first === undefined) {
    return node ?? group('all', [])
  }
  const parts = root.parts.flatMap((part, i) => {
    if (i !== first) {
      return [part]
    }
    const next = rest.length === 0 ? node : replaced(part, rest, node)
    return next === undefined || isEmptyGroup(next) ? [] : [next]
  })
  return { ...root, parts }
}

function isEmptyGroup(node: RuleNode): boolean {
  return (node.kind === 'all' || node.kind === 'any' || node.kind === 'none') && node.parts.length === 0
}

/** With one more part at the end of a group. */
export function added(root: RuleNode, path: Path, node: RuleNode): RuleNode {
  const parent = at(root, path) ?? root
  const next = { ...parent, parts: [...parent.parts, node] }
  return path.length === 0 ? next : replaced(root, path, next)
}

/** One line of the editor. */
export interface EditorRow {
  readonly path: Path
  readonly node: RuleNode
  /** Between it and the one before: "and", "or"; empty for the first of a group. */
  readonly joint: '' | 'and' | 'or'
  readonly depth: number
  /** What is left after it; nothing while that is not known, or where it is about elements. */
  readonly devices: number | undefined
  /** What the fleet has in place of a value that no device has. */
  readonly nearest: string | undefined
  /** Whether it only says how the rows below it go together. */
  readonly heads: boolean
  /** The complex attribute that it is about an element of; empty for none. */
  readonly complex: string
}

/**
 * The tree as lines. @param line the same rule with its figures, where the server has read it as it is
 */
export function rows(root: RuleNode, line: RuleLine | undefined): readonly EditorRow[] {
  // A rule of one clause stands in a group of one here, and by itself there.
  const figures = line === undefined || line.kind === 'all' ? line : { ...line, kind: 'all' as const, parts: [line] }
  const found: EditorRow[] = []
  const walk = (
    node: RuleNode,
    of: RuleLine | undefined,
    path: Path,
    depth: number,
    joint: EditorRow['joint'],
    complex: string,
  ) => {
    const single = node.kind === 'none' && node.parts.length === 1 ? node.parts[0] : undefined
    const some = node.kind === 'some' ? node : single?.kind === 'some' ? single : undefined
    const plain =
      node.kind === 'clause' || node.kind === 'has' || (some !== undefined && some.parts[0]?.kind === 'clause')
    const heads = !plain && !(single !== undefined && (single.kind === 'clause' || single.kind === 'has'))
    found.push({
      path,
      node,
      joint,
      depth,
      devices: complex === '' ? of?.devices : undefined,
      nearest: of?.nearest ?? of?.parts[0]?.nearest ?? of?.parts[0]?.parts[0]?.nearest,
      heads,
      complex,
    })
    if (heads) {
      below(node, of, path, depth + 1, some === undefined ? complex : some.attribute)
    }
  }
  const below = (node: RuleNode, of: RuleLine | undefined, path: Path, depth: number, complex: string) =>
    node.parts.forEach((part, i) =>
      walk(
        part,
        of?.parts[i],
        [...path, i],
        depth,
        i === 0 ? '' : node.kind === 'all' || node.kind === 'some' ? 'and' : 'or',
        complex,
      ),
    )
  below(root, figures, [], 0, '')
  return found
}

/** The clause that a line edits: itself, or the one in its brackets or below its "not". */
export function inner(node: RuleNode): {
  readonly clause: RuleNode
  readonly complex: string
  readonly negated: boolean
} {
  const negated = node.kind === 'none'
  const first = negated ? (node.parts[0] ?? node) : node
  return first.kind === 'some'
    ? { clause: first.parts[0] ?? first, complex: first.attribute, negated }
    : { clause: first, complex: '', negated }
}

/** The same line with another clause in it. */
export function withInner(node: RuleNode, next: RuleNode): RuleNode {
  if (node.kind === 'none') {
    const first = node.parts[0]
    return group('none', [first === undefined ? next : withInner(first, next)])
  }
  return node.kind === 'some' && next.kind === 'clause' ? { ...node, parts: [next] } : next
}

/** The opposite of a line. */
export function opposite(node: RuleNode): RuleNode {
  return node.kind === 'none' && node.parts.length === 1 && node.parts[0] !== undefined
    ? node.parts[0]
    : group('none', [node])
}

const OPERATORS: Record<string, string> = {
  eq: 'equals',
  ne: 'is not',
  co: 'contains',
  sw: 'begins with',
  ew: 'ends with',
  gt: 'above',
  ge: 'at least',
  lt: 'below',
  le: 'at most',
  pr: 'is reported',
}

const OF_TYPE: Record<Attribute['type'], readonly string[]> = {
  text: ['eq', 'ne', 'co', 'sw', 'ew', 'pr'],
  version: ['ge', 'gt', 'le', 'lt', 'eq', 'ne', 'pr'],
  number: ['ge', 'gt', 'le', 'lt', 'eq', 'ne', 'pr'],
  instant: ['gt', 'lt', 'ge', 'le', 'pr'],
  dn: ['eq', 'ne', 'pr'],
  collection: ['eq', 'ne'],
}

/** The operators that a type takes, each with how it reads. */
export function operatorsOf(
  type: Attribute['type'],
  used: string,
): readonly { readonly word: string; readonly reads: string }[] {
  const words = OF_TYPE[type].includes(used) || used === '' ? OF_TYPE[type] : [...OF_TYPE[type], used]
  return words.map(word => ({ word, reads: operatorReads(word, type) }))
}

function operatorReads(word: string, type: Attribute['type']): string {
  if (type === 'dn' || type === 'collection') {
    const among = type === 'dn' ? 'is at or below' : 'holds it:'
    return word === 'eq'
      ? among
      : word === 'ne'
        ? type === 'dn'
          ? 'is not below'
          : 'does not hold it:'
        : (OPERATORS[word] ?? word)
  }
  if (type === 'instant') {
    return word === 'gt' ? 'after' : word === 'lt' ? 'before' : (OPERATORS[word] ?? word)
  }
  return OPERATORS[word] ?? word
}

/** What a value is called: of a distinguished name the name of the entry itself. */
export function valueReads(value: string, type: Attribute['type']): string {
  return type === 'dn' ? (/^[a-z]+=((?:\\.|[^,\\])*)/i.exec(value)?.[1] ?? value).replaceAll('\\', '') : value
}
