import { describe, expect, it } from 'vitest'
import type { Rehearsal } from '../api/draft'
import { effectWords, figures, toFetch } from './figures'

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
      '0 gain, 0 lose, 9 removed, installed on 2 now',
    )
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
      '1,200 gain, 0 lose, 3 removed, installed on 2 now, 1.0 KiB to fetch',
    )
    expect(effectWords(NOTHING)).toBe('0 gain, 0 lose')
    expect(toFetch(NOTHING)).toBe('')
  })
})
