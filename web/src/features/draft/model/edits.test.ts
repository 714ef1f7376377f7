import { describe, expect, it } from 'vitest'
import type { Edit } from '../api/draft'
import { changedSince, editAt, editWords } from './edits'

const edit: Edit = {
  id: 'e-1',
  act: 'put',
  kind: 'assignment',
  document: 'a-1',
  revision: 0,
  subject: 'title:s',
  name: 'Siltscope Lab',
  places: [{ target: 'ou:o', name: 'Dosing', intent: 'required' }],
  binding: false,
  choices: {},
}
const place = edit.places[0]!

describe('an edit in words', () => {
  it('says what shall be, where, and what was', () => {
    expect(editWords(edit)).toEqual({
      verb: 'Require',
      name: 'Siltscope Lab',
      where: 'Dosing',
      was: 'nothing was assigned here',
      choices: '',
    })
  })

  it.each([
    ['required', false, 'Require'],
    ['required', true, 'Require, binding'],
    ['available', false, 'Offer'],
    ['available', true, 'Offer, binding'],
    ['uninstall', false, 'Remove'],
    ['uninstall', true, 'Remove, binding'],
    ['none', false, 'End'],
  ] as const)('calls %s, binding %s, by its verb', (intent, binding, verb) => {
    expect(editWords({ ...edit, binding, places: [{ ...place, intent }] }).verb).toBe(verb)
  })

  it.each([
    ['required', 'was Require'],
    ['available', 'was Offer'],
    ['uninstall', 'was Remove'],
    [undefined, 'was not assigned here'],
  ] as const)('says what was: %s', (was, words) => {
    const changed = was === undefined ? place : { ...place, was }
    expect(editWords({ ...edit, revision: 3, places: [changed] }).was).toBe(words)
  })

  it('names two places, and counts more', () => {
    const at = (name: string) => ({ ...place, name })
    expect(editWords({ ...edit, places: [at('A'), at('B')] }).where).toBe('A and B')
    expect(editWords({ ...edit, places: [at('A'), at('B'), at('C'), at('D')] }).where).toBe('A, B and 2 more')
    expect(editWords({ ...edit, places: [{ target: 'ou:x', intent: 'none' }] }).where).toBe('an OU that has gone')
  })

  it('says what it fixes', () => {
    expect(editWords({ ...edit, choices: { languages: 'en,cy', parts: '' } }).choices).toBe(
      'languages en,cy, parts none',
    )
  })

  it.each([
    ['put', 'fence', 0, 'Add the fence around'],
    ['put', 'collection', 2, 'Edit the collection'],
    ['retire', 'window', 2, 'Delete the maintenance window'],
    ['open-wave', 'assignment', 0, 'Open the next wave of'],
    ['accept', 'title', 0, 'Accept the licence text of'],
  ] as const)('says %s of a %s', (act, kind, revision, verb) => {
    expect(editWords({ ...edit, act, kind, revision, places: [] })).toMatchObject({ verb, where: '', was: '' })
  })
})

describe('an edit of what somebody else has changed', () => {
  it('says who made what of it', () => {
    expect(changedSince(edit)).toBeNull()
    expect(changedSince({ ...edit, changedSince: {} })).toBe('It has been deleted since you edited it.')
    expect(changedSince({ ...edit, changedSince: { by: 'odile.brandt', at: '', now: 'uninstall on Dosing' } })).toBe(
      'odile.brandt has changed it since: uninstall on Dosing.',
    )
  })
})

describe('the edit of an OU', () => {
  it('is found by its subject and its place', () => {
    const other = { ...edit, id: 'e-2', subject: 'title:other' }
    expect(editAt([other, edit], 'title:s', 'o')).toBe(edit)
    expect(editAt([other, edit], 'title:s', 'p')).toBeUndefined()
    expect(editAt([other], 'title:s', 'o')).toBeUndefined()
  })
})
