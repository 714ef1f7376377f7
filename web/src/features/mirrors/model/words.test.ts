import { describe, expect, it } from 'vitest'
import type { MirrorLine } from '../api/mirrors'
import { copyWords, fetchedWords, percent, savedWords, standingWords } from './words'

const MIB = 1024 * 1024
const line: MirrorLine = {
  mirror: { id: 'h', name: 'Hartsmere', address: 'http://h' },
  devices: 3,
  lookedAt: '2026-11-23T08:00:00Z',
  held: 2,
  copying: 0,
  heldBytes: 0,
  fetchedBytes: 0,
  servedBytes: 0,
  savedBytes: 0,
}

describe('a copy on a mirror', () => {
  it('says how far it is, and never that all is there before it is', () => {
    expect(percent({ held: 999, size: 1000 })).toBe(99)
    expect(copyWords({ state: 'copying', held: 1, size: 2, message: '' })).toBe('copying, 50 %')
    expect(copyWords({ state: 'failed', held: 0, size: 2, message: 'Not copied: it answered 500' })).toBe(
      'Not copied: it answered 500',
    )
    expect(copyWords({ state: 'unknown', held: 0, size: 2, message: '' })).toBe('not asked yet')
  })
})

describe('a mirror', () => {
  it('says what it holds, what it is copying, or why it is silent', () => {
    expect(standingWords(line, 5)).toBe('holds 2 of 5 files')
    expect(standingWords({ ...line, copying: 1 }, 5)).toBe('holds 2 of 5 files, copying 1')
    expect(standingWords({ ...line, trouble: 'It does not answer' }, 5)).toBe('It does not answer')
  })

  it('says how often it was asked', () => {
    expect([0, 1, 1200].map(fetchedWords)).toEqual(['', 'fetched once', 'fetched 1,200 times'])
  })

  it('says what it saved', () => {
    expect(savedWords(line)).toBe('no device has fetched from it yet')
    expect(savedWords({ ...line, fetchedBytes: 5 * MIB, servedBytes: MIB, savedBytes: 4 * MIB })).toBe(
      'devices fetched 5.0 MiB here, which itself fetched 1.0 MiB: 4.0 MiB less from the server',
    )
  })
})

describe('every state of a copy', () => {
  const words = (state: Parameters<typeof copyWords>[0]['state'], held = 1) =>
    copyWords({ state, held, size: 3, message: 'It answered 500' })

  it('has words of its own', () => {
    expect(words('held')).toBe('there')
    expect(words('absent')).toBe('not there')
    expect(words('partly')).toBe('33 % there')
    expect(words('waiting')).toBe('waits to be copied')
    expect(words('copying', 2)).toBe('copying, 66 %')
    expect(words('failed')).toBe('It answered 500')
  })

  it('counts whole percent from nothing to everything', () => {
    expect([0, 1, 2, 3].map(held => percent({ held, size: 3 }))).toEqual([0, 33, 66, 100])
    expect(percent({ held: 0, size: 0 })).toBe(100)
  })
})

describe('a mirror that has nothing to tell', () => {
  it('says so', () => {
    const { lookedAt: _, ...never } = line
    expect(standingWords(never, 5)).toBe('not asked yet')
    expect(standingWords({ ...never, trouble: 'It does not answer' }, 5)).toBe('It does not answer')
    expect(standingWords({ ...line, held: 0 }, 1)).toBe('holds 0 of 1 file')
    expect(savedWords({ fetchedBytes: MIB, servedBytes: MIB, savedBytes: 0 })).toBe(
      'devices fetched 1.0 MiB here, which itself fetched 1.0 MiB',
    )
  })
})
