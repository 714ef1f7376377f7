import { describe, expect, it } from 'vitest'
import { EMPTY_CHECK, filledChecks, PRESENCE_KINDS, presenceProblem, seenBy } from './presence'

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

describe('presence checks as they are written', () => {
  const whole = { ...EMPTY_CHECK, subject: 'Siltscope' }

  it('leave out those that look at nothing', () => {
    expect(filledChecks([EMPTY_CHECK, whole, { ...EMPTY_CHECK, subject: '  ' }])).toEqual([whole])
    expect(presenceProblem([EMPTY_CHECK, whole])).toBeUndefined()
  })

  it('never leave out a version that was typed', () => {
    expect(presenceProblem([whole, { ...EMPTY_CHECK, version: '4' }])).toBe(
      'Fill in what the check looks at, or delete it.',
    )
  })
})
