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
    expect(nextLook(undefined)).toBe(nextLook(shelf({ offers: [offer('Maps', { state: 'in-place' })] })))
    const seldom = nextLook(shelf({}))
    for (const state of ['under-way', 'waiting', 'leaving'] as const) {
      expect(nextLook(shelf({ offers: [offer('Maps', { state })] }))).toBeLessThan(seldom)
    }
    const coming = { title: 'a', name: 'A', leaves: false, mayBeSooner: false, line: '' }
    expect(nextLook(shelf({ coming: [coming] }))).toBe(seldom)
    expect(nextLook(shelf({ coming: [{ ...coming, percent: 0 }] }))).toBeLessThan(seldom)
    const notice = { notice: 'n', kind: 'restart', words: {}, state: 'shown' } as const
    expect(nextLook(shelf({ notices: [notice] }))).toBeLessThan(seldom)
  })
})
