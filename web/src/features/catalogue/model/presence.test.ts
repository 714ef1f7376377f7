import { describe, expect, it } from 'vitest'
import { PRESENCE_KINDS, seenBy } from './presence'

describe('a presence check in words', () => {
  it('says what it looks at', () => {
    expect(seenBy({ kind: 'inventory', subject: 'Siltscope Lab', version: '' })).toBe('inventory name Siltscope Lab')
  })

  it('says the lowest version that will do', () => {
    expect(seenBy({ kind: 'file', subject: 'C:/silt.exe', version: '4.2' })).toBe('file C:/silt.exe at 4.2 or later')
  })

  it('has words of its own for every kind', () => {
    const words = Object.values(PRESENCE_KINDS)
    expect(new Set(words).size).toBe(words.length)
  })
})
