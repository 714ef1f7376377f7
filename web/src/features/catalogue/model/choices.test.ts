import { describe, expect, it } from 'vitest'
import type { Choice, ReleaseRecord } from '../api/catalogue'
import { chosen, costs, emptyChoice, fixedWords, isMany, toggled, valueWords, withValue } from './choices'

const languages: Choice = {
  id: 'languages',
  text: 'Languages',
  kind: 'languages',
  usual: 'en',
  allowed: [
    { value: 'en', text: 'English', reads: '', bytes: 0, file: '' },
    { value: 'cy', text: '', reads: '', bytes: 1024, file: 'cy.cab' },
  ],
}
const channel: Choice = { ...languages, id: 'channel', kind: 'channel' }

describe('a choice', () => {
  it('is said in the words of its values', () => {
    expect(valueWords(languages, 'en,cy')).toBe('English, cy')
    expect(valueWords(languages, '')).toBe('none')
    expect(valueWords(channel, 'en')).toBe('English')
  })

  it('keeps the order of its list when one is put in or taken out', () => {
    expect(toggled(languages, 'cy', 'en')).toBe('en,cy')
    expect(toggled(languages, 'en,cy', 'en')).toBe('cy')
    expect(toggled(languages, 'en', 'en')).toBe('')
  })

  it('is left open again', () => {
    expect(withValue({ languages: 'en', threads: '4' }, 'languages', undefined)).toEqual({ threads: '4' })
    expect(withValue({}, 'languages', '')).toEqual({ languages: '' })
  })

  it('costs its file and what is fetched besides', () => {
    const release = {
      variants: [{ contents: [{ fileName: 'cy.cab', sha256: '', size: 1024 }] }],
    } as unknown as ReleaseRecord
    expect(costs(release, languages.allowed[1] ?? { value: '', text: '', reads: '', bytes: 0, file: '' })).toBe(
      '2.0 KiB',
    )
    expect(costs(release, languages.allowed[0] ?? { value: '', text: '', reads: '', bytes: 1, file: '' })).toBe('')
  })
})

describe('the kinds of choices', () => {
  it('take several values or one', () => {
    expect((['parts', 'languages', 'channel'] as const).map(kind => isMany({ ...languages, kind }))).toEqual([
      true,
      true,
      false,
    ])
    expect(chosen(languages, 'en,,cy')).toEqual(['en', 'cy'])
    expect(chosen(languages, '')).toEqual([])
    expect(chosen(channel, 'en,cy')).toEqual(['en,cy'])
  })

  it('say a value that has no words by itself', () => {
    expect(valueWords(channel, 'fast')).toBe('fast')
  })

  it('begin with nothing in them', () => {
    expect(emptyChoice()).toEqual({ id: '', text: '', kind: 'languages', usual: '', allowed: [] })
  })
})

describe('what is fixed', () => {
  const release = { choices: [languages, { ...channel, text: '' }], variants: [] } as unknown as ReleaseRecord

  it('is said choice by choice', () => {
    expect(fixedWords(release, { languages: 'en,cy', channel: 'en' })).toBe(
      'Set: languages English, cy, channel English.',
    )
    expect(fixedWords(release, { channel: 'en' })).toBe('Set: channel English.')
    expect(fixedWords(release, { languages: '' })).toBe('Set: languages none.')
  })

  it('may be nothing', () => {
    expect(fixedWords(release, {})).toBe('Default choices.')
  })

  it('keeps the other values', () => {
    expect(withValue({ languages: 'en', channel: 'fast' }, 'languages', 'cy')).toEqual({
      languages: 'cy',
      channel: 'fast',
    })
  })

  it('costs what it says where it has no file', () => {
    expect(costs(release, { value: 'cy', text: '', reads: '', bytes: 1, file: 'none' })).toBe('1 B')
  })
})
