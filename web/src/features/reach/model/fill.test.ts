import { describe, expect, it } from 'vitest'
import type { OuReach } from '../api/reach'
import { behindLabel, countsInWords, fill, isEdited, occurring, proportions } from './fill'
import { NO_COUNTS } from './noCounts'

const OU: OuReach = {
  id: 'o',
  name: 'Dosing',
  depth: 2,
  devices: 4,
  own: 4,
  people: 3,
  below: 0,
  more: 0,
  moreDevices: 0,
  fenced: false,
  edited: false,
  counts: { ...NO_COUNTS, required: 1, none: 3 },
  here: [],
}

describe('the colours of a band', () => {
  it('follow its devices in proportion when nothing is below it', () => {
    expect(fill(OU, false)).toEqual([
      { kind: 'required', share: 0.25 },
      { kind: 'none', share: 0.75 },
    ])
  })

  it('show what is in force at it when something is below it', () => {
    expect(fill({ ...OU, outcome: 'uninstall' }, true)).toEqual([{ kind: 'uninstall', share: 1 }])
    expect(fill(OU, true)).toEqual([{ kind: 'none', share: 1 }])
  })

  it('show what is in force where no device stands', () => {
    expect(fill({ ...OU, devices: 0, counts: NO_COUNTS, outcome: 'required' }, false)).toEqual([
      { kind: 'required', share: 1 },
    ])
  })

  it('show the draft where there is one', () => {
    const edited: OuReach = { ...OU, edited: true, after: { ...NO_COUNTS, required: 4 } }
    expect(fill(edited, false)).toEqual([{ kind: 'required', share: 1 }])
    expect(isEdited(edited, false)).toBe(true)
    expect(isEdited(OU, false)).toBe(false)
    expect(isEdited({ ...OU, after: { ...NO_COUNTS, required: 4 } }, true)).toBe(false)
  })

  it('are none for no devices', () => {
    expect(proportions(NO_COUNTS)).toEqual([])
    expect(countsInWords(NO_COUNTS)).toBe('')
  })

  it('are said in words, the strongest first', () => {
    expect(countsInWords({ ...NO_COUNTS, uninstall: 2, required: 1 })).toBe('1 required, 2 removed')
  })
})

describe('a band without devices', () => {
  const empty = { ...OU, devices: 0, counts: NO_COUNTS }

  it('shows what is in force at it, and nothing in proportion', () => {
    expect(fill({ ...empty, outcome: 'required' }, false)).toEqual([{ kind: 'required', share: 1 }])
    expect(proportions(NO_COUNTS)).toEqual([])
  })

  it('is edited when an edit names it', () => {
    expect(isEdited({ ...empty, edited: true }, false)).toBe(true)
    expect(isEdited({ ...empty, after: NO_COUNTS }, false)).toBe(false)
  })
})

describe('an edited band', () => {
  it('is one whose devices come to something else, or one that is named when bands stand below it', () => {
    expect(isEdited({ ...OU, after: { ...NO_COUNTS, required: 4 } }, false)).toBe(true)
    expect(isEdited({ ...OU, edited: true }, false)).toBe(false)
    expect(isEdited({ ...OU, edited: true }, true)).toBe(true)
    expect(isEdited({ ...OU, after: { ...NO_COUNTS, required: 4 } }, true)).toBe(false)
  })
})

it('has a word for every outcome, and shows them in one order', () => {
  const all = Object.fromEntries(Object.keys(NO_COUNTS).map((kind, i) => [kind, i + 1])) as typeof NO_COUNTS
  expect(countsInWords(all)).toBe(
    '1 required, 2 offered, 3 removed, 4 contested, 5 wait for a seat, 6 later, 7 blocked, 8 do not fit, 9 replaced, ' +
      '10 kept off, 11 not assigned',
  )
  expect(proportions(all).reduce((sum, stretch) => sum + stretch.share, 0)).toBeCloseTo(1)
})

it('lists what occurs now or with the draft', () => {
  expect(occurring({ ...NO_COUNTS, none: 4 }, undefined)).toEqual(['none'])
  expect(occurring({ ...NO_COUNTS, required: 4 }, { ...NO_COUNTS, waiting: 1, uninstall: 3 })).toEqual([
    'required',
    'uninstall',
    'waiting',
  ])
})

it('a name stands on the colour that is behind most of it', () => {
  expect(behindLabel([])).toBeUndefined()
  expect(behindLabel([{ kind: 'required', share: 1 }])).toBe('required')
  const narrow = [
    { kind: 'available', share: 0.02 },
    { kind: 'uninstall', share: 0.98 },
  ] as const
  expect(behindLabel(narrow)).toBe('uninstall')
  expect(behindLabel([{ kind: 'available', share: 0.3 }, ...narrow])).toBe('available')
})
