import { describe, expect, it } from 'vitest'
import type { TitleRecord, VariantRecord } from '../api/catalogue'
import {
  deviceSteps,
  emptyStep,
  exitCodes,
  exitText,
  exitWords,
  led,
  moved,
  movedStep,
  reworded,
  withoutStep,
  withFits,
  withRelease,
  withSeats,
  withStep,
  withSteps,
  withVariant,
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
    web: '',
  },
  scope: 'device',
  asks: { approval: false, licence: false },
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
    const mine = { ...record, maker: 'Fenwick', about: { ...record.about, owner: 'Works IT' } }
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

describe('steps at each person’s sign-in', () => {
  const step = (command: string, rest: Partial<ReturnType<typeof emptyStep>> = {}) => ({
    ...emptyStep(),
    command,
    ...rest,
  })

  it('come after the device’s, which lead to the end of their own part at the most', () => {
    const steps = [step('a', { thenTo: 4 }), step('b'), step('c')]
    const after = withStep(steps, 1, step('b', { atSignIn: true }))
    expect(after.map(one => one.command)).toEqual(['a', 'c', 'b'])
    expect(after[0]?.thenTo).toBe(3)
    expect(deviceSteps(after)).toBe(2)
  })

  it('stay last when another is added or changed', () => {
    const steps = [step('a'), step('b', { atSignIn: true })]
    expect(withStep(steps, 2, step('c')).map(one => one.command)).toEqual(['a', 'c', 'b'])
    expect(withStep(steps, 0, step('d')).map(one => one.command)).toEqual(['d', 'b'])
    expect(withStep(steps, 1, step('b')).map(one => one.atSignIn)).toEqual([false, false])
  })
})

describe('the rule of a variant', () => {
  it('is put in, changed and left out', () => {
    const plain = variant('x64')
    expect(withFits(plain, 'arch eq "x64"')).toEqual({ ...plain, fits: 'arch eq "x64"' })
    expect(withFits({ ...plain, fits: 'a' }, 'b')).toEqual({ ...plain, fits: 'b' })
    expect(withFits({ ...plain, fits: 'a' }, '  ')).toEqual(plain)
    expect(withFits({ ...plain, fits: 'a' }, '')).not.toHaveProperty('fits')
  })

  it('is the same object where nothing is different', () => {
    const ruled = { ...variant('x64'), fits: 'a' }
    expect(withFits(ruled, 'a')).toBe(ruled)
    const plain = variant('x64')
    expect(withFits(plain, ' ')).toBe(plain)
  })

  it('changes one variant of one release alone', () => {
    const after = withVariant(record, { version: '4.1.0', variant: 'x64' }, v => withFits(v, 'a'))
    expect(after.releases.flatMap(r => r.variants.map(v => v.fits))).toEqual(['a', undefined, undefined, undefined])
  })
})

describe('seats', () => {
  it('are counted where there is a number, and not where there is none', () => {
    expect(withSeats(record, '40')).toEqual({ ...record, seats: 40 })
    expect(withSeats({ ...record, seats: 40 }, ' ')).toEqual(record)
    expect(withSeats({ ...record, seats: 40 }, '')).not.toHaveProperty('seats')
    const counted = { ...record, seats: 40 }
    expect(withSeats(counted, '40')).toBe(counted)
    expect(withSeats(record, '')).toBe(record)
  })

  it('are changed only by whoever changed them', () => {
    const words = {
      name: record.name,
      maker: record.maker,
      about: record.about,
      scope: record.scope,
      asks: record.asks,
    }
    const counted = { ...record, seats: 40 }
    expect(reworded({ ...record, seats: 50 }, counted, words, ' 40 ').seats).toBe(50)
    expect(reworded({ ...record, seats: 50 }, counted, words, '60').seats).toBe(60)
    expect(reworded({ ...record, seats: 50 }, counted, words, '').seats).toBeUndefined()
    expect(reworded(record, record, { ...words, name: 'Siltscope' }, '').name).toBe('Siltscope')
    expect(reworded(record, record, { ...words, scope: 'user' }, '').scope).toBe('user')
    expect(reworded({ ...record, scope: 'user' }, record, words, '').scope).toBe('user')
    const asked = { approval: true, licence: false }
    expect(reworded(record, record, { ...words, asks: asked }, '').asks).toEqual(asked)
    expect(
      reworded({ ...record, asks: { approval: false, licence: true } }, record, { ...words, asks: asked }, '').asks,
    ).toEqual({
      approval: true,
      licence: true,
    })
  })
})

describe('every exit code', () => {
  it('has words for what it means', () => {
    expect(
      (['done', 'restart', 'sign-out', 'again', 'failed'] as const).map(meaning =>
        exitWords({ code: -7, meaning, againMinutes: 15 }),
      ),
    ).toEqual(['-7 done', '-7 restart needed', '-7 sign-out needed', '-7 busy, again in 15 min', '-7 failed'])
  })

  it('is read with all the room that people leave around it', () => {
    expect(exitCodes('  -1   failed \n\n \n1641 sign-out\n1618 again\n5 again 30\n')).toEqual([
      { code: -1, meaning: 'failed', againMinutes: 0 },
      { code: 1641, meaning: 'sign-out', againMinutes: 0 },
      { code: 1618, meaning: 'again', againMinutes: 5 },
      { code: 5, meaning: 'again', againMinutes: 30 },
    ])
    expect(exitCodes('')).toEqual([])
  })

  it.each(['0', 'done', '0 done 5 x', 'x0 done', '0.5 done', '0 restarts', '0 done x', '0 Done'])(
    '%j is refused by name',
    line => {
      expect(exitCodes(`0 done\n ${line}`)).toBe(
        `“${line}” is not read: write a number and one of done, restart, sign-out, again, failed.`,
      )
    },
  )

  it('starts with those of the usual installers', () => {
    const step = emptyStep()
    expect(exitText(step.exitCodes)).toBe('0 done\n3010 restart\n1618 again 5')
    expect([step.kind, step.limitSeconds, step.asPerson, step.goesOn]).toEqual(['run', 1200, false, false])
    expect([step.text, step.command, step.to, step.folder, step.onlyWith, step.says]).toEqual(['', '', '', '', '', ''])
    expect(step.environment).toEqual({})
  })
})

describe('any program that is moved about', () => {
  /** A made-up row of numbers that is the same on every run. */
  function* numbers(): Generator<number, never> {
    for (let n = 17; ;) {
      n = (n * 1103515245 + 12345) % 2147483648
      yield n / 2147483648
    }
  }
  const row = numbers()
  const below = (n: number) => Math.floor(row.next().value * n)

  it('has each step lead to the very one that it led to', () => {
    for (let run = 0; run < 300; run++) {
      const length = 1 + below(6)
      const lead = () => (below(2) === 0 ? undefined : 1 + below(length + 1))
      const steps = Array.from({ length }, (_, i) => led({ ...emptyStep(), command: `s${i}` }, lead(), lead()))
      const named = (list: readonly (typeof steps)[number][], to: number | undefined) =>
        to === undefined ? 'next' : (list[to - 1]?.command ?? 'end')
      const at = below(length)
      const after = movedStep(steps, at, below(length))
      for (const step of steps) {
        const now = after.find(s => s.command === step.command)
        expect(now === undefined ? undefined : [named(after, now.thenTo), named(after, now.failsTo)]).toEqual([
          named(steps, step.thenTo),
          named(steps, step.failsTo),
        ])
      }
      const without = withoutStep(steps, at)
      const gone = steps[at]?.command
      const instead = (to: string) => (to === gone ? (steps[at + 1]?.command ?? 'end') : to)
      for (const step of steps.filter(s => s.command !== gone)) {
        const now = without.find(s => s.command === step.command)
        expect(now === undefined ? undefined : [named(without, now.thenTo), named(without, now.failsTo)]).toEqual([
          instead(named(steps, step.thenTo)),
          instead(named(steps, step.failsTo)),
        ])
      }
    }
  })

  it('keeps all of its entries wherever one is moved to', () => {
    for (let run = 0; run < 200; run++) {
      const list = Array.from({ length: 1 + below(6) }, (_, i) => i)
      const at = below(list.length + 1)
      const by = below(9) - 4
      const after = moved(list, at, by)
      const inside = at < list.length && at + by >= 0 && at + by < list.length
      expect(after.indexOf(at)).toBe(inside ? at + by : list.indexOf(at))
      expect(after.filter(entry => entry !== at)).toEqual(list.filter(entry => entry !== at))
    }
  })
})
