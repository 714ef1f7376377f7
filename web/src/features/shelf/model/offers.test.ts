import { describe, expect, it } from 'vitest'
import type { Offer, Shelf } from '../api/shelf'
import { categoriesOf, nextLook, offersWith } from './offers'

const offer = (name: string, rest: Partial<Offer> = {}): Offer => ({
  title: name.toLowerCase(),
  name,
  maker: 'Fenwick',
  description: '',
  category: '',
  icon: '',
  forPerson: false,
  bytes: 0,
  minutes: 0,
  mayRestart: false,
  takesOff: [],
  state: 'offered',
  line: '',
  ...rest,
})

const shelf = (rest: Partial<Shelf>): Shelf => ({
  person: '',
  devices: [],
  offers: [],
  coming: [],
  here: [],
  notices: [],
  ...rest,
})

describe('what is offered', () => {
  const offers = [offer('Maps', { category: 'Field' }), offer('Doses', { category: 'Works', description: 'chlorine' })]

  it('has categories where there is a choice', () => {
    expect(categoriesOf(offers)).toEqual(['Field', 'Works'])
    expect(categoriesOf(offers.slice(0, 1))).toEqual([])
    expect(categoriesOf([offer('a'), offer('b')])).toEqual([])
  })

  it('is found by what is said of it', () => {
    expect(offersWith(offers, 'CHLOR', undefined).map(one => one.name)).toEqual(['Doses'])
    expect(offersWith(offers, 'fenwick', 'Field').map(one => one.name)).toEqual(['Maps'])
    expect(offersWith(offers, 'chlor', 'Field')).toEqual([])
  })
})

describe('the next look', () => {
  it('comes soon while something moves', () => {
    const now = Date.parse('2026-11-29T12:00:00Z')
    const look = (what: Shelf | undefined) => nextLook(what, now)
    expect(look(undefined)).toBe(look(shelf({ offers: [offer('Maps', { state: 'in-place' })] })))
    const seldom = look(shelf({}))
    for (const state of ['under-way', 'waiting', 'leaving'] as const) {
      expect(look(shelf({ offers: [offer('Maps', { state })] }))).toBeLessThan(seldom)
    }
    const coming = { title: 'a', name: 'A', leaves: false, mayBeSooner: false, line: '' }
    expect(look(shelf({ coming: [coming] }))).toBe(seldom)
    expect(look(shelf({ coming: [{ ...coming, percent: 0 }] }))).toBeLessThan(seldom)
    expect(look(shelf({ coming: [{ ...coming, due: '2026-11-29T12:01:30Z' }] }))).toBeLessThan(seldom)
    expect(look(shelf({ coming: [{ ...coming, due: '2026-11-29T11:59:00Z' }] }))).toBeLessThan(seldom)
    expect(look(shelf({ coming: [{ ...coming, due: '2026-11-29T12:15:00Z' }] }))).toBe(seldom)
    const notice = { notice: 'n', kind: 'restart', words: {}, state: 'shown' } as const
    expect(look(shelf({ notices: [notice] }))).toBeLessThan(seldom)
  })
})
