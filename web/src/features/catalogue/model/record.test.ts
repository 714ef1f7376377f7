import { describe, expect, it } from 'vitest'
import type { TitleRecord, VariantRecord } from '../api/catalogue'
import {
  emptyStep,
  exitCodes,
  exitText,
  exitWords,
  led,
  moved,
  movedStep,
  reworded,
  withoutStep,
  withRelease,
  withSteps,
} from './record'

const variant = (id: string): VariantRecord => ({
  id,
  asPerson: false,
  contents: [],
  install: [{ ...emptyStep(), command: 'one' }],
  remove: [],
  repair: [],
  presence: { any: false, checks: [] },
})

const record: TitleRecord = {
  id: 'siltscope',
  name: 'Siltscope Lab',
  maker: 'Fenwick Instruments',
  about: {
    owner: '',
    category: '',
    description: '',
    information: '',
    privacy: '',
    notes: '',
    approvedBy: '',
    icon: '',
    licence: '',
  },
  trustedSigners: [],
  conflictsWith: [],
  releases: ['4.1.0', '4.2.0'].map(version => ({
    version,
    offered: true,
    note: '',
    needs: [],
    replaces: [],
    choices: [],
    variants: [variant('x64'), variant('arm64')],
  })),
}

describe('a title that is edited', () => {
  it('changes the steps of one program of one variant alone', () => {
    const spot = { version: '4.2.0', variant: 'arm64' }
    const after = withSteps(record, spot, 'install', steps => [...steps, { ...emptyStep(), command: 'two' }])
    expect(after.releases[1]?.variants[1]?.install.map(s => s.command)).toEqual(['one', 'two'])
    expect(after.releases[1]?.variants[0]).toEqual(record.releases[1]?.variants[0])
    expect(after.releases[0]).toEqual(record.releases[0])
  })

  it('withdraws one release alone', () => {
    const after = withRelease(record, '4.1.0', release => ({ ...release, offered: false }))
    expect(after.releases.map(r => r.offered)).toEqual([false, true])
  })
})

describe('two people who edit the words of one title', () => {
  it('both keep what they changed', () => {
    const theirs = { ...record, seats: 40, about: { ...record.about, category: 'Treatment' } }
    const mine = { name: record.name, maker: 'Fenwick', about: { ...record.about, owner: 'Works IT' } }
    expect(reworded(theirs, record, mine, '')).toEqual({
      ...theirs,
      maker: 'Fenwick',
      about: { ...record.about, category: 'Treatment', owner: 'Works IT' },
    })
  })
})

describe('moving', () => {
  it('puts an entry further up or down', () => {
    expect(moved(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c'])
    expect(moved(['a', 'b', 'c'], 2, -2)).toEqual(['c', 'a', 'b'])
  })

  it('leaves the list alone where it would lead outside', () => {
    expect(moved(['a', 'b'], 0, -1)).toEqual(['a', 'b'])
    expect(moved(['a', 'b'], 1, 1)).toEqual(['a', 'b'])
  })
})

describe('exit codes', () => {
  it('are read as they are written', () => {
    const codes = emptyStep().exitCodes
    expect(exitText(codes)).toBe('0 done\n3010 restart\n1618 again 5')
    expect(exitCodes(exitText(codes))).toEqual(codes)
  })

  it('say which line cannot be read', () => {
    expect(exitCodes('0 done\n7 maybe')).toContain('“7 maybe” is not read')
  })

  it('have words', () => {
    expect(exitWords({ code: 1618, meaning: 'again', againMinutes: 5 })).toBe('1618 busy, again in 5 min')
  })
})

describe('steps that lead to others', () => {
  const step = (command: string, thenTo?: number, failsTo?: number) => led({ ...emptyStep(), command }, thenTo, failsTo)
  const steps = [step('a', 3, 4), step('b'), step('c'), step('d', 5)]
  const drawn = (list: readonly ReturnType<typeof step>[]) =>
    list.map(s => `${s.command}${s.thenTo ?? ''}/${s.failsTo ?? ''}`)

  it('lead to the same ones when those are moved', () => {
    expect(drawn(movedStep(steps, 1, 2))).toEqual(['a2/4', 'c/', 'b/', 'd5/'])
  })

  it('lead to the one after where theirs is taken out', () => {
    expect(drawn(withoutStep(steps, 2))).toEqual(['a3/3', 'b/', 'd4/'])
    expect(drawn(withoutStep(steps, 3))).toEqual(['a3/4', 'b/', 'c/'])
  })
})
