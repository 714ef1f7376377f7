import { describe, expect, it } from 'vitest'
import type { Edit, Rehearsal } from '../api/draft'
import { editWords, effectWords, figures, toFetch } from './figures'

const NOTHING: Rehearsal = {
  devices: 60,
  gains: 0,
  loses: 0,
  removes: 0,
  removesPresent: 0,
  newlyContested: 0,
  settled: 0,
  bytes: 0,
  token: 't',
  titles: [],
}

describe('the figures of a rehearsal', () => {
  it('always says who gains and who loses', () => {
    expect(figures(NOTHING).map(f => f.part)).toEqual(['gains', 'loses'])
  })

  it('says the others when they are not nought', () => {
    expect(figures({ ...NOTHING, removes: 2, newlyContested: 3 }).map(f => [f.part, f.n])).toEqual([
      ['gains', 0],
      ['loses', 0],
      ['removes', 2],
      ['contested', 3],
    ])
  })

  it('says nothing of fetching when there is nothing to fetch', () => {
    expect(toFetch(NOTHING)).toBe('')
    expect(toFetch({ ...NOTHING, bytes: 2048 })).toBe('2.0 KiB to fetch')
  })
})

describe('an effect in one line', () => {
  it('leaves out what does not happen', () => {
    expect(effectWords({ ...NOTHING, gains: 520, bytes: 2048 })).toBe('520 gain, 0 lose, 2.0 KiB to fetch')
  })

  it('says where a removal will really happen', () => {
    expect(effectWords({ ...NOTHING, removes: 9, removesPresent: 2 })).toBe(
      '0 gain, 0 lose, 9 removed, on 2 it is there now',
    )
  })
})

describe('an edit in words', () => {
  const edit: Edit = {
    subject: 'title:s',
    name: 'Siltscope Lab',
    ou: 'o',
    ouName: 'Dosing',
    intent: 'required',
    binding: false,
    choices: {},
  }

  it('says what stood there before', () => {
    expect(editWords(edit).was).toBe('nothing was assigned here')
    expect(editWords({ ...edit, was: 'uninstall' }).was).toBe('was Remove')
  })

  it('says when an OU has gone', () => {
    const { ouName: _, ...gone } = edit
    expect(editWords(gone).where).toBe('an OU that has gone')
  })

  it('says what is fixed of its choices', () => {
    expect(editWords(edit).choices).toBe('')
    expect(editWords({ ...edit, choices: { languages: 'en,cy', parts: '' } }).choices).toBe(
      'languages en,cy, parts none',
    )
  })

  it('names an ending as one', () => {
    expect(editWords({ ...edit, intent: 'none' }).verb).toBe('End what is assigned')
  })
})

describe('every figure', () => {
  it('has its words and its part', () => {
    expect(
      figures({ ...NOTHING, gains: 1, loses: 2, removes: 3, newlyContested: 4, settled: 5 }).map(
        f => `${f.n} ${f.words} (${f.part})`,
      ),
    ).toEqual([
      '1 gain (gains)',
      '2 lose (loses)',
      '3 removed (removes)',
      '4 newly contested (contested)',
      '5 settled (settled)',
    ])
  })

  it('stands in one line', () => {
    expect(effectWords({ ...NOTHING, gains: 1200, removes: 3, removesPresent: 2, bytes: 1024 })).toBe(
      '1,200 gain, 0 lose, 3 removed, on 2 it is there now, 1.0 KiB to fetch',
    )
    expect(effectWords(NOTHING)).toBe('0 gain, 0 lose')
    expect(toFetch(NOTHING)).toBe('')
  })
})

describe('every edit', () => {
  const edit: Edit = {
    subject: 'title:siltscope',
    name: 'Siltscope Lab',
    ou: 'o1',
    ouName: 'Trunk mains',
    intent: 'required',
    binding: false,
    choices: {},
  }

  it.each([
    ['required', false, 'Require'],
    ['required', true, 'Require, binding'],
    ['uninstall', false, 'Remove'],
    ['uninstall', true, 'Remove, binding'],
    ['none', false, 'End what is assigned'],
  ] as const)('%s, binding %s, is said', (intent, binding, words) => {
    expect(editWords({ ...edit, intent, binding }).verb).toBe(words)
  })

  it('says what was there before, and where', () => {
    expect(editWords(edit).was).toBe('nothing was assigned here')
    expect(editWords({ ...edit, was: 'required' }).was).toBe('was Require')
    expect(editWords({ ...edit, was: 'uninstall' }).was).toBe('was Remove')
    expect(editWords(edit).where).toBe('Trunk mains')
    const { ouName: _, ...gone } = edit
    expect(editWords(gone).where).toBe('an OU that has gone')
    expect(editWords({ ...edit, choices: { languages: 'en,cy', parts: '' } }).choices).toBe(
      'languages en,cy, parts none',
    )
  })
})
