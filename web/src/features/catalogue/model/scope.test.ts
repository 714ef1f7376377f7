import { describe, expect, it } from 'vitest'
import { whereWords } from './scope'

describe('where a title is', () => {
  it('counts devices, or the profiles of people', () => {
    expect([0, 1, 1200].map(n => whereWords('device', n))).toEqual(['on no device', 'on 1 device', 'on 1,200 devices'])
    expect([0, 1, 2].map(n => whereWords('user', n))).toEqual(['in no profile', 'in 1 profile', 'in 2 profiles'])
  })
})
