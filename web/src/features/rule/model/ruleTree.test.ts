import { describe, expect, test } from 'vitest'
import type { Attribute, RuleLine, RuleNode } from './ruleTree'
import {
  added,
  clause,
  emptyClause,
  fromLine,
  group,
  inner,
  operatorsOf,
  opposite,
  print,
  replaced,
  rows,
  valueReads,
  withInner,
} from './ruleTree'

const ATTRIBUTES: readonly Attribute[] = [
  { name: 'arch', type: 'text' },
  { name: 'ramGiB', type: 'number' },
  { name: 'os.version', type: 'version' },
  { name: 'ou', type: 'dn' },
  { name: 'software.name', type: 'text' },
  { name: 'software.version', type: 'version' },
]

const some = (attribute: string, ...parts: RuleNode[]): RuleNode => ({
  kind: 'some',
  attribute,
  operator: '',
  value: '',
  parts,
})

describe('the text of a rule', () => {
  test('clauses of one group go together by "and", and "or" among them stands in parentheses', () => {
    const rule = group('all', [
      clause('arch', 'eq', 'x64'),
      group('any', [clause('ramGiB', 'ge', '8'), clause('group', 'eq', 'lab-analysts')]),
    ])
    expect(print(rule, ATTRIBUTES)).toBe('arch eq "x64" and (ramGiB ge 8 or group eq "lab-analysts")')
  })

  test('a group that stands alone needs none', () => {
    const any = group('any', [clause('arch', 'eq', 'x64'), clause('arch', 'eq', 'arm64')])
    expect(print(group('all', [any]), ATTRIBUTES)).toBe('arch eq "x64" or arch eq "arm64"')
  })

  test('a group of one needs no parentheses, and an empty one says nothing', () => {
    expect(print(group('all', [group('any', [clause('arch', 'eq', 'x64')])]), ATTRIBUTES)).toBe('arch eq "x64"')
    expect(print(group('all', [group('any', []), group('none', [])]), ATTRIBUTES)).toBe('')
  })

  test('what is negated stands in parentheses after "not"', () => {
    const without = group('none', [some('software', clause('name', 'eq', 'Tarnlog Viewer'))])
    expect(print(group('all', [without]), ATTRIBUTES)).toBe('not (software[name eq "Tarnlog Viewer"])')
    expect(print(group('none', [clause('arch', 'eq', 'x64'), clause('arch', 'eq', 'arm64')]), ATTRIBUTES)).toBe(
      'not (arch eq "x64" or arch eq "arm64")',
    )
  })

  test('all that stands in brackets is about one element', () => {
    const both = some('software', group('all', [clause('name', 'co', 'Lab'), clause('version', 'ge', '4.2')]))
    expect(print(group('all', [both]), ATTRIBUTES)).toBe('software[name co "Lab" and version ge "4.2"]')
  })

  test('a number stands without quotes only where it is one; quotes and backslashes are escaped', () => {
    expect(print(clause('ramGiB', 'ge', 'much'), ATTRIBUTES)).toBe('ramGiB ge "much"')
    expect(print(clause('ramGiB', 'ge', ' 7.5 '), ATTRIBUTES)).toBe('ramGiB ge 7.5')
    expect(print(clause('os.version', 'ge', '10'), ATTRIBUTES)).toBe('os.version ge "10"')
    expect(print(clause('arch', 'eq', 'a"b\\c'), ATTRIBUTES)).toBe('arch eq "a\\"b\\\\c"')
  })

  test('what is only asked for to be there has no value', () => {
    expect(print(clause('arch', 'pr', 'left over'), ATTRIBUTES)).toBe('arch pr')
    expect(print({ kind: 'has', attribute: 'software', operator: '', value: '', parts: [] }, ATTRIBUTES)).toBe(
      'software pr',
    )
  })
})

const line = (part: Partial<RuleLine> & Pick<RuleLine, 'kind'>): RuleLine => ({
  attribute: '',
  operator: '',
  value: '',
  devices: 0,
  parts: [],
  ...part,
})

describe('lines of the editor', () => {
  const x64 = line({ kind: 'clause', attribute: 'arch', operator: 'eq', value: 'x64', devices: 574 })
  const ram = line({ kind: 'clause', attribute: 'ramGiB', operator: 'ge', value: '8', devices: 366 })
  const any = line({ kind: 'any', devices: 391, parts: [ram, x64] })

  test('a rule of one clause stands in a group of one, with its figure', () => {
    const found = rows(fromLine(x64), x64)
    expect(found.map(row => [row.joint, row.depth, row.devices, row.heads])).toEqual([['', 0, 574, false]])
  })

  test('each line knows how it goes with the one before, and how deep it stands', () => {
    const whole = line({ kind: 'all', devices: 391, parts: [x64, any] })
    expect(rows(fromLine(whole), whole).map(row => [row.joint, row.depth, row.devices])).toEqual([
      ['', 0, 574],
      ['and', 0, 391],
      ['', 1, 366],
      ['or', 1, 574],
    ])
  })

  test('a clause about one part of an element is one line, negated or not', () => {
    const name = line({
      kind: 'clause',
      attribute: 'name',
      operator: 'eq',
      value: 'Tarnlog V',
      nearest: 'Tarnlog Viewer',
    })
    const software = line({ kind: 'some', attribute: 'software', devices: 3, parts: [name] })
    const without = line({ kind: 'none', devices: 312, parts: [software] })
    const found = rows(fromLine(without), without)
    expect(found).toHaveLength(1)
    expect(found[0]?.nearest).toBe('Tarnlog Viewer')
    expect(found[0]?.devices).toBe(312)
    expect(inner(found[0]?.node ?? group('all', []))).toMatchObject({
      complex: 'software',
      negated: true,
      clause: { value: 'Tarnlog V' },
    })
  })

  test('what stands together in brackets is below a line that says of what', () => {
    const both = line({
      kind: 'some',
      attribute: 'software',
      devices: 9,
      parts: [line({ kind: 'all', parts: [x64, ram] })],
    })
    const found = rows(fromLine(both), both)
    expect(found[0]).toMatchObject({ heads: true, devices: 9, complex: '' })
    expect(found.slice(1).every(row => row.complex === 'software' && row.devices === undefined)).toBe(true)
  })

  test('without figures the lines stand there all the same', () => {
    expect(rows(fromLine(any), undefined).map(row => row.devices)).toEqual([undefined, undefined, undefined])
  })
})

describe('editing', () => {
  const rule = group('all', [clause('arch', 'eq', 'x64'), group('any', [clause('ramGiB', 'ge', '8')])])

  test('a line is replaced where it stands, and its neighbours stay', () => {
    expect(print(replaced(rule, [1, 0], clause('ramGiB', 'ge', '16')), ATTRIBUTES)).toBe(
      'arch eq "x64" and ramGiB ge 16',
    )
  })

  test('a group goes with its last line', () => {
    expect(replaced(rule, [1, 0], undefined).parts).toHaveLength(1)
    expect(replaced(rule, [0], undefined).parts[0]?.kind).toBe('any')
    expect(replaced(rule, [], undefined).parts).toHaveLength(0)
  })

  test('a line is added to the group that is named, or to all', () => {
    expect(added(rule, [1], clause('arch', 'eq', 'arm64')).parts[1]?.parts).toHaveLength(2)
    expect(added(rule, [], clause('arch', 'eq', 'arm64')).parts).toHaveLength(3)
  })

  test('the opposite of the opposite is the line itself', () => {
    const one = clause('arch', 'eq', 'x64')
    expect(opposite(opposite(one))).toEqual(one)
  })

  test('what a line compares is changed inside its brackets and its "not"', () => {
    const without = group('none', [some('software', clause('name', 'eq', 'A'))])
    const other = withInner(without, clause('name', 'sw', 'B'))
    expect(print(other, ATTRIBUTES)).toBe('not (software[name sw "B"])')
    expect(print(withInner(clause('arch', 'eq', 'x64'), clause('arch', 'ne', 'x64')), ATTRIBUTES)).toBe('arch ne "x64"')
  })

  test('a new clause about a part of an element stands in brackets; numbers and versions begin with "at least"', () => {
    expect(print(emptyClause('software.name', ATTRIBUTES), ATTRIBUTES)).toBe('software[name eq ""]')
    expect(emptyClause('ramGiB', ATTRIBUTES).operator).toBe('ge')
    expect(emptyClause('os.version', ATTRIBUTES)).toMatchObject({ kind: 'clause', attribute: 'os.version' })
  })
})

test('an operator that a type does not offer stays where it is used', () => {
  expect(operatorsOf('dn', 'sw').map(one => one.word)).toEqual(['eq', 'ne', 'pr', 'sw'])
  expect(operatorsOf('dn', 'eq')[0]?.reads).toBe('is at or below')
  expect(operatorsOf('instant', 'lt').find(one => one.word === 'lt')?.reads).toBe('before')
})

test('an OU is called by its own name', () => {
  expect(valueReads('ou=Laboratories,dc=quillbrook,dc=example', 'dn')).toBe('Laboratories')
  expect(valueReads('ou=Reservoirs\\, planned,dc=x', 'dn')).toBe('Reservoirs, planned')
  expect(valueReads('x64', 'text')).toBe('x64')
})
