import { describe, expect, it } from 'vitest'
import type { OuReach } from '../api/reach'
import { countsInWords, fill, isEdited, proportions } from './fill'

const NONE = { required: 0, uninstall: 0, contested: 0, unfit: 0, none: 0 }
const OU: OuReach = {
  id: 'o',
  name: 'Dosing',
  depth: 2,
  devices: 4,
  own: 4,
  people: 3,
  fenced: false,
  edited: false,
  counts: { ...NONE, required: 1, none: 3 },
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
    expect(fill({ ...OU, devices: 0, counts: NONE, outcome: 'required' }, false)).toEqual([
      { kind: 'required', share: 1 },
    ])
  })

  it('show the draft where there is one', () => {
    const edited: OuReach = { ...OU, edited: true, after: { ...NONE, required: 4 } }
    expect(fill(edited, false)).toEqual([{ kind: 'required', share: 1 }])
    expect(isEdited(edited, false)).toBe(true)
    expect(isEdited(OU, false)).toBe(false)
    expect(isEdited({ ...OU, after: { ...NONE, required: 4 } }, true)).toBe(false)
  })

  it('are none for no devices', () => {
    expect(proportions(NONE)).toEqual([])
    expect(countsInWords(NONE)).toBe('')
  })

  it('are said in words, the strongest first', () => {
    expect(countsInWords({ ...NONE, uninstall: 2, required: 1 })).toBe('1 install, 2 removed')
  })
})

describe('a band without devices', () => {
  const empty = { ...OU, devices: 0, counts: NONE }

  it('shows what is in force at it, and nothing in proportion', () => {
    expect(fill({ ...empty, outcome: 'required' }, false)).toEqual([{ kind: 'required', share: 1 }])
    expect(proportions(NONE)).toEqual([])
  })

  it('is edited when an edit names it', () => {
    expect(isEdited({ ...empty, edited: true }, false)).toBe(true)
    expect(isEdited({ ...empty, after: NONE }, false)).toBe(false)
  })
})

describe('an edited band', () => {
  it('is one whose devices come to something else, or one that is named when bands stand below it', () => {
    expect(isEdited({ ...OU, after: { ...NONE, required: 4 } }, false)).toBe(true)
    expect(isEdited({ ...OU, edited: true }, false)).toBe(false)
    expect(isEdited({ ...OU, edited: true }, true)).toBe(true)
    expect(isEdited({ ...OU, after: { ...NONE, required: 4 } }, true)).toBe(false)
  })
})

it('has a word for every colour', () => {
  expect(countsInWords({ required: 1, contested: 2, uninstall: 3, unfit: 4, none: 5 })).toBe(
    '1 install, 2 contested, 3 removed, 4 do not fit, 5 untouched',
  )
})
