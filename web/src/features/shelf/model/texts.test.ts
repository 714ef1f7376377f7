import { describe, expect, it } from 'vitest'
import { filled, LANGUAGES, languageOf } from './texts'

const places = (text: string) => [...text.matchAll(/\{\w+\}/g)].map(found => found[0]).sort()

describe('the texts of the shelf', () => {
  it.each(Object.keys(LANGUAGES))('are all there in %s, with the same values in them', language => {
    const english = Object.entries(LANGUAGES['en'] ?? {})
    const texts: Readonly<Record<string, string>> = LANGUAGES[language] ?? {}
    expect(Object.keys(texts).sort()).toEqual(english.map(([key]) => key).sort())
    english.forEach(([key, text]) => expect([key, places(texts[key] ?? '')]).toEqual([key, places(text)]))
  })

  it('are in the first language that is wanted and known', () => {
    expect(languageOf([null, 'cy', 'de-AT', 'en'])).toBe('de')
    expect(languageOf(['EN-gb'])).toBe('en')
    expect(languageOf(['cy'])).toBe('en')
    expect(languageOf([])).toBe('en')
  })

  it('take their values', () => {
    expect(filled('{free} of {all} free', { free: 0, all: 40 })).toBe('0 of 40 free')
    expect(filled('for {name}')).toBe('for {name}')
  })
})
