import { describe, expect, it } from 'vitest'
import type { Choice, ReleaseRecord } from '../api/catalogue'
import {
  choiceFields,
  choicesOf,
  choicesProblem,
  chosen,
  costs,
  EMPTY_CHOICE,
  EMPTY_VALUE,
  fixedWords,
  isMany,
  toggled,
  valueWords,
  withValue,
} from './choices'

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

  it('begin with nothing in them, and are left out while it is so', () => {
    expect(choicesOf([EMPTY_CHOICE])).toEqual([])
    expect(choicesProblem([EMPTY_CHOICE])).toBeUndefined()
    expect(choicesOf([{ ...EMPTY_CHOICE, text: 'Languages', allowed: [EMPTY_VALUE] }])[0]?.allowed).toEqual([])
  })
})

describe('choices as they are written', () => {
  const number: Choice = { id: 'n', text: 'Port', kind: 'number', usual: '8', allowed: [], least: -1, most: 9 }

  it('come back as they went in', () => {
    const all = [{ ...languages, allowed: [...languages.allowed] }, channel, number, { ...number, id: 'm' }]
    expect(choicesOf(all.map(choiceFields))).toEqual(all)
  })

  it('have sizes in MiB, and are called by their names where they have no id', () => {
    const written = choiceFields({ ...languages, id: '', allowed: [{ ...EMPTY_VALUE, value: 'cy', bytes: 1572864 }] })
    expect(written.allowed[0]?.mib).toBe('1.5')
    expect(choicesOf([{ ...written, text: 'Größe der Tür' }])[0]).toMatchObject({
      id: 'gro-e-der-tur',
      allowed: [{ bytes: 1572864 }],
    })
  })

  it.each([0, 1, 6, 1023, 1048575, 1048576, 10485760, 123456789, 4294967297])('keep a size to the byte: %i', size => {
    const written = choiceFields({ ...languages, allowed: [{ ...EMPTY_VALUE, value: 'cy', bytes: size }] })
    expect(choicesProblem([written])).toBeUndefined()
    expect(choicesOf([written])[0]?.allowed[0]?.bytes).toBe(size)
  })

  it('are not held up by values that their kind does not show', () => {
    const rest = { ...withOne({ text: 'Welsh', mib: 'much' }), kind: 'text' as const }
    expect(choicesProblem([rest])).toBeUndefined()
    expect(choicesProblem([{ ...rest, kind: 'channel' }])).toBe('Fill in the value.')
  })

  it('lose the ends of a range with the kind that has one', () => {
    expect(choicesOf([{ ...choiceFields(number), kind: 'text' }])[0]).not.toHaveProperty('least')
    expect(choicesOf([{ ...choiceFields(number), least: ' ', most: '' }])[0]).not.toHaveProperty('most')
  })

  it.each([
    ['a default without a name', { ...EMPTY_CHOICE, usual: 'en' }, 'Give the choice a name.'],
    ['a value without a name', { ...EMPTY_CHOICE, allowed: [EMPTY_VALUE] }, 'Give the choice a name.'],
    ['a name without letters', { ...EMPTY_CHOICE, text: '…' }, 'Give the choice a name with letters or digits.'],
    ['words without a value', withOne({ text: 'Welsh' }), 'Fill in the value.'],
    ['a size that is none', withOne({ value: 'cy', mib: 'much' }), 'A size in MiB, such as 12.5, or empty for none.'],
    ['a size below nothing', withOne({ value: 'cy', mib: '-1' }), 'A size in MiB, such as 12.5, or empty for none.'],
    ['a bound that is none', { ...choiceFields(number), most: '1.5' }, 'A whole number, or empty for no bound.'],
    ['a first bound that is none', { ...choiceFields(number), least: 'x' }, 'A whole number, or empty for no bound.'],
  ])('say what is wrong with %s', (_, fields, problem) => {
    expect(choicesProblem([choiceFields(number), fields])).toBe(problem)
  })

  it('look at a range only where the kind has one', () => {
    expect(choicesProblem([{ ...choiceFields(channel), least: 'x' }])).toBeUndefined()
    expect(choicesProblem([withOne({ value: 'cy', mib: '12.5' })])).toBeUndefined()
  })

  function withOne(value: Partial<typeof EMPTY_VALUE>) {
    return { ...EMPTY_CHOICE, text: 'Languages', allowed: [{ ...EMPTY_VALUE, ...value }] }
  }
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
