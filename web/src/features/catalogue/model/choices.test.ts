import { describe, expect, it } from 'vitest'
import type { Choice, ReleaseRecord } from '../api/catalogue'
import { costs, toggled, valueWords, withValue } from './choices'

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
