import { describe, expect, it } from 'vitest'
import { WORDS, wordsOf, wordsWith } from './words'

describe('the words', () => {
  it('are the rows of the page, each with a sentence, and none twice', () => {
    expect(WORDS.length).toBeGreaterThan(40)
    for (const one of WORDS) {
      expect(one.word, one.meaning).not.toBe('')
      expect(one.meaning, one.word).toMatch(/^[A-Z].*\.$/)
    }
    expect(new Set(WORDS.map(one => one.word)).size).toBe(WORDS.length)
  })

  it('are read without the head of the table and without marks', () => {
    expect(wordsOf('# Words\n\n| word | meaning |\n|---|---|\n| rule | Such as `a eq "b"`, or *this*. |\n')).toEqual([
      { word: 'rule', meaning: 'Such as a eq "b", or this.' },
    ])
    expect(wordsOf('')).toEqual([])
  })

  it('are found by their name first, then by what explains them', () => {
    const found = wordsWith(' Fence ').map(one => one.word)
    expect(found[0]).toBe('fence')
    expect(found).toContain('binding')
    expect(wordsWith('')).toEqual(WORDS)
    expect(wordsWith('no such word')).toEqual([])
  })
})
