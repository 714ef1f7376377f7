import { describe, expect, test } from 'vitest'
import type { Tried } from '../api/assign'
import { stoppedBy, triedFigures } from './figures'
import { atLocal, fromLocal } from './local'
import { assignAddress, ASSIGN_ADDRESS } from './address'
import { readAddress } from '../../../shared/address'
import { blank, missing, newId, rolledOut, rowOf, toggled, withWave } from './sheet'
import {
  courtesyWords,
  deadlineProblem,
  laneWords,
  otherwiseWords,
  periodWords,
  rolloutWords,
  seconds,
  waveWords,
} from './words'

const OPENING = { subject: 'title:siltscope', include: ['group:crew'], follows: 'device', intent: 'required' } as const

describe('an assignment that is written', () => {
  test('begins with what is known, and everything else at its default', () => {
    expect(blank('a-1', OPENING)).toEqual({ id: 'a-1', seq: 0, ...OPENING })
    expect(blank('a-1', { ...OPENING, also: ['title:mudview'] })).not.toHaveProperty('also')
    expect(newId()).toMatch(/^a-[0-9a-f]{20}$/)
    expect(newId()).not.toBe(newId())
  })

  test('a target is put in once and taken out again', () => {
    expect(toggled(undefined, 'ou:a')).toEqual(['ou:a'])
    expect(toggled(['ou:a', 'ou:b'], 'ou:a')).toEqual(['ou:b'])
  })

  test('waves are edited by their place', () => {
    const waves = [
      { share: 10, open: true },
      { to: [], open: false },
    ]
    expect(withWave(waves, 0, { share: 20, open: true })[0]?.share).toBe(20)
    expect(withWave(waves, 0, undefined)).toEqual([{ to: [], open: false }])
  })

  test('without anybody it cannot be kept', () => {
    expect(missing(blank('a-1', { ...OPENING, include: [] }))).toBe('Choose whom it is for.')
    expect(missing(blank('a-1', OPENING))).toBeUndefined()
  })
})

test('what is refused stands at the part of the sheet that it is about', () => {
  expect(rowOf('assignments[3].include[0]')).toBe('whom')
  expect(rowOf('assignment:a-1.waves[0].share')).toBe('waves')
  expect(rowOf('assignment:a-1.deadline.at')).toBe('when')
  expect(rowOf('assignment:a-1.release')).toBe('what')
  expect(rowOf('assignment:a-1.courtesy.restart.way')).toBe('otherwise')
  expect(rowOf('')).toBe('otherwise')
})

describe('words', () => {
  test('periods', () => {
    expect(seconds('P1DT2H30M')).toBe(95_400)
    expect(seconds('P')).toBeUndefined()
    expect(seconds('PT')).toBeUndefined()
    expect(periodWords('P1D')).toBe('a day')
    expect(periodWords('P3D')).toBe('3 days')
    expect(periodWords('PT1H')).toBe('an hour')
    expect(periodWords('PT90M')).toBe('90 minutes')
    expect(periodWords('P1M')).toBe('P1M')
  })

  test('courtesy', () => {
    expect(courtesyWords(undefined)).toBe(
      'People are told when it is done; a restart is asked for and may be put off for 8 hours.',
    )
    expect(courtesyWords({ quiet: true, restart: { way: 'none' } })).toBe(
      'People are told only what asks or counts down; a restart waits until somebody restarts.',
    )
    expect(
      courtesyWords({ tell: { before: ['P1D', 'PT1H'] }, restart: { way: 'ask', defer: { until: 'PT4H' } } }),
    ).toContain('told a day and an hour before and when it is done;')
    expect(courtesyWords({ tell: { before: [], start: true, done: false } })).toContain('told when it begins;')
    expect(courtesyWords({ tell: { before: ['PT1H'], start: true, done: true } })).toContain(
      'told an hour before, when it begins and when it is done;',
    )
    expect(courtesyWords({ tell: { before: [], done: false } })).toContain('told only if it did not work;')
  })

  test('all that is seldom changed, in one line', () => {
    expect(otherwiseWords(blank('a-1', OPENING))).toContain('Not binding. Priority 500.')
    expect(
      otherwiseWords({ ...blank('a-1', OPENING), binding: true, priority: 700, leaving: 'remove', note: 'CHG-1' }),
    ).toMatch(/Binding.*Priority 700.*Removed when a device leaves.*Note: CHG-1\./)
  })

  test('waves', () => {
    expect(waveWords({ share: 25, open: false }, false, one => one)).toBe('25 in 100')
    expect(waveWords({ to: ['group:p'], open: true }, false, () => 'pilot')).toBe('pilot')
    expect(waveWords({ to: [], open: false }, true, one => one)).toBe('the rest')
    expect(waveWords({ to: ['group:p'], open: false }, true, () => 'pilot')).toBe('pilot and the rest')
  })

  test('a deadline before it begins, or in the past, says so', () => {
    const now = Date.parse('2026-11-28T12:00:00Z')
    const one = blank('a-1', OPENING)
    expect(deadlineProblem(one, now)).toBeUndefined()
    expect(deadlineProblem({ ...one, deadline: { at: '2026-12-04T18:00:00Z' } }, now)).toBeUndefined()
    expect(deadlineProblem({ ...one, deadline: { at: '2026-11-20T18:00:00Z' } }, now)).toMatch(/has passed/)
    expect(
      deadlineProblem({ ...one, from: '2026-12-05T00:00:00Z', deadline: { at: '2026-12-04T18:00:00Z' } }, now),
    ).toMatch(/before it begins/)
  })

  test('a local time comes back as the same instant', () => {
    expect(fromLocal(atLocal('2026-12-04T18:00:00.000Z'))).toBe('2026-12-04T18:00:00.000Z')
    expect(atLocal('2026-12-04T18:00:00.000Z')).toMatch(/^2026-12-0\dT\d\d:00$/)
  })
})

const TRIED: Tried = {
  devices: 309,
  people: 287,
  units: 309,
  include: [],
  exclude: [],
  leftOut: [
    { part: 'left-out-0', by: 'excluded', name: 'loan-pool', n: 4 },
    { part: 'left-out-1', by: 'fence', name: 'Radiology', n: 12 },
    { part: 'left-out-2', by: 'fence', name: 'Control room', n: 3 },
  ],
  figures: [
    { part: 'served', n: 309 },
    { part: 'contested', n: 4 },
    { part: 'already', n: 34 },
  ],
  releases: [],
  waves: [],
  bytes: 0,
  late: [],
}

describe('what an edit would do', () => {
  test('the figure that it is about is told even when it is nought, the others when they are not', () => {
    expect(triedFigures(TRIED, 'required').map(one => [one.part, one.n])).toEqual([
      ['gains', 0],
      ['already', 34],
      ['contested', 4],
    ])
    expect(triedFigures(TRIED, 'available')[0]?.part).toBe('offered')
    expect(triedFigures(TRIED, 'uninstall').map(one => one.part)).toContain('removes')
  })

  test('fences are added up and named', () => {
    expect(stoppedBy(TRIED)).toEqual({ n: 15, names: 'Radiology, Control room', parts: ['left-out-1', 'left-out-2'] })
  })
})

test('a sheet is opened by its address, whatever is in the ids', () => {
  const include = ['group:a b', 'device:c,d&e']
  const address = assignAddress({ title: 'x/y', include, follows: 'user' })
  const query = new URL(address, 'http://rivo').searchParams
  expect(readAddress(ASSIGN_ADDRESS, query)).toEqual({
    assign: 'new',
    kit: undefined,
    for: include,
    also: [],
    follows: 'user',
    intent: 'required',
  })
  expect(address.startsWith('/reach/x%2Fy?')).toBe(true)
  expect(
    readAddress(
      ASSIGN_ADDRESS,
      new URL(assignAddress({ title: 't', id: 'a-9', kit: 'k' }), 'http://rivo').searchParams,
    ),
  ).toMatchObject({
    assign: 'a-9',
    kit: 'k',
    for: [],
  })
})

test('what is no encoding in an address is passed over', () => {
  expect(readAddress(ASSIGN_ADDRESS, new URLSearchParams('assign=new&for=%25zz group%253Aa')).for).toEqual(['group:a'])
})

describe('how waves go on', () => {
  const end = ' Closing a wave puts those that do not have it yet back to later.'
  test('is said in one line', () => {
    expect(rolloutWords(undefined)).toBe(`Each opens by hand.${end}`)
    expect(rolloutWords({ opens: { inPlace: 95, atLeast: 20, after: 'P1D' }, stops: { failed: 3 } })).toBe(
      'The next opens by itself when 95 in 100 of the last are in place, and at least 20, a day after the last at the ' +
        `earliest; they stop when more than 3 in 100 of those that tried have failed.${end}`,
    )
    expect(rolloutWords({ stops: { failed: 0, atLeast: 2 } })).toBe(
      `Each opens by hand; they stop when more than 0 in 100 of those that tried have failed, and at least 2.${end}`,
    )
  })

  test('leaves nothing where each opens by hand', () => {
    expect(rolledOut(undefined, { stopped: true })).toEqual({ stopped: true })
    expect(rolledOut({ stopped: true }, { stopped: undefined })).toBeUndefined()
    expect(rolledOut({ stopped: true, stops: { failed: 3 } }, { stopped: undefined })).toEqual({ stops: { failed: 3 } })
  })

  test('a lane says how far it has come', () => {
    expect(laneWords({ decided: 40, inPlace: 31, failed: 2 })).toBe('31 of 40 in place, 2 failed')
    expect(laneWords({ decided: 40, inPlace: 40, failed: 0 })).toBe('40 of 40 in place')
  })
})
