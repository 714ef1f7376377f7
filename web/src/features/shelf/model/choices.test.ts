import { describe, expect, it } from 'vitest'
import type { Choice } from './choices'
import { chosenOf, withChoice } from './choices'

const LANGUAGES: Choice = {
  id: 'languages',
  name: 'Languages',
  many: true,
  value: 'en',
  values: [
    { value: 'en', name: 'English' },
    { value: 'cy', name: 'Welsh' },
    { value: 'de', name: 'German' },
  ],
}
const CHANNEL: Choice = { ...LANGUAGES, id: 'channel', many: false, value: 'slow' }

describe('what one chooses of a title', () => {
  it('is as it was until one chooses', () => {
    expect(chosenOf(LANGUAGES, {})).toEqual(['en'])
    expect(chosenOf(CHANNEL, {})).toEqual(['slow'])
  })

  it('gathers several in the order in which they are offered, and lets them go', () => {
    const two = withChoice(LANGUAGES, withChoice(LANGUAGES, {}, 'de', true), 'cy', true)
    expect(two).toEqual({ languages: 'en,cy,de' })
    expect(withChoice(LANGUAGES, two, 'en', false)).toEqual({ languages: 'cy,de' })
    expect(chosenOf(LANGUAGES, { languages: '' })).toEqual([])
  })

  it('is one of several where only one can be', () => {
    expect(withChoice(CHANNEL, { channel: 'slow', languages: 'en' }, 'fast', true)).toEqual({
      channel: 'fast',
      languages: 'en',
    })
  })
})
