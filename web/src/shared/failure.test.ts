import { describe, expect, it } from 'vitest'
import { Refusal } from './api'
import { failure } from './failure'

describe('what a query has failed by', () => {
  const error = new Error('no answer')

  it('is nothing while it has not failed', () => {
    expect(failure({ isError: false, error: null, data: undefined })).toBeUndefined()
  })

  it('is shown where there is nothing else to show', () => {
    expect(failure({ isError: true, error, data: undefined })).toBe(error)
  })

  it('leaves what was loaded on the screen', () => {
    expect(failure({ isError: true, error, data: [] })).toBeUndefined()
    expect(failure({ isError: true, error: new Refusal(503, 'busy', 'Later.'), data: [] })).toBeUndefined()
  })

  it.each([404, 410])('but not what is said to be no more (%i)', status => {
    const gone = new Refusal(status, 'gone', 'It has gone.')
    expect(failure({ isError: true, error: gone, data: [] })).toBe(gone)
  })
})
