import { describe, expect, it } from 'vitest'
import type { RequestRow } from '../api/requests'
import { endOfDay, requestWords } from './words'

function row(rest: Partial<RequestRow>): RequestRow {
  return {
    id: 'r',
    device: 'd',
    deviceName: 'QB-LAB-014',
    title: 't',
    titleName: 'Valvewright',
    by: 'u',
    byName: 'Rowena Elmby',
    forPerson: false,
    at: '2026-11-28T09:00:00Z',
    state: 'asked',
    ...rest,
  }
}

const day = (instant: string) => instant.slice(0, 10)
const answer = { by: 'imara.voss', at: '2026-11-28T10:00:00Z', agreed: true, words: '' }

describe('a request in words', () => {
  it('waits, is taken, or was given back', () => {
    expect(requestWords(row({}), day)).toBe('waits for an answer')
    expect(requestWords(row({ state: 'taken' }), day)).toBe('taken')
    expect(requestWords(row({ state: 'sooner' }), day)).toBe('wanted before its deadline')
    expect(requestWords(row({ state: 'given-back' }), day)).toBe('given back; being removed')
  })

  it('names who answered, until when, and their words', () => {
    expect(requestWords(row({ state: 'taken', answer }), day)).toBe('agreed by imara.voss')
    const until = { ...answer, until: '2026-12-24T23:59:59Z', words: 'For the survey' }
    expect(requestWords(row({ state: 'taken', answer: until }), day)).toBe(
      'agreed by imara.voss until 2026-12-24: “For the survey”',
    )
    const refused = { ...answer, agreed: false, words: 'No seat is left' }
    expect(requestWords(row({ state: 'refused', answer: refused }), day)).toBe(
      'refused by imara.voss: “No seat is left”',
    )
  })
})

describe('the end of a day', () => {
  it('is its last second where the browser is', () => {
    expect(new Date(endOfDay('2026-12-24') ?? '').getHours()).toBe(23)
  })

  it('is nothing for what is no day', () => {
    expect(endOfDay('')).toBeUndefined()
    expect(endOfDay('2026-13-40')).toBeUndefined()
    expect(endOfDay('2026-02-31')).toBeUndefined()
  })
})
