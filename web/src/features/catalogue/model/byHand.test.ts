import { describe, expect, it } from 'vitest'
import type { Written } from './byHand'
import { problemOf, writtenTitle } from './byHand'

const written: Written = {
  name: ' Fluxplayer removal ',
  maker: 'Flux Media',
  version: '1',
  fits: '',
  install: '',
  remove: '{uninstaller:Fluxplayer} --quiet',
  seenBy: 'Fluxplayer',
}

describe('a title that is written by hand', () => {
  it('may be a single command without content, and waits to be offered', () => {
    const title = writtenTitle(written)
    expect(title.id).toBe('fluxplayer-removal')
    const release = title.releases[0]
    expect(release?.offered).toBe(false)
    const variant = release?.variants[0]
    expect(variant?.contents).toEqual([])
    expect(variant?.install).toEqual([])
    expect(variant?.remove.map(step => step.command)).toEqual(['{uninstaller:Fluxplayer} --quiet'])
    expect(variant?.presence.checks).toEqual([{ kind: 'inventory', subject: 'Fluxplayer', version: '' }])
    expect(variant).not.toHaveProperty('fits')
  })

  it('says what is missing', () => {
    expect(problemOf(written)).toBeUndefined()
    expect(problemOf({ ...written, name: '…' })).toBe('Give it a name.')
    expect(problemOf({ ...written, version: ' ' })).toBe('Give it a version.')
    expect(problemOf({ ...written, remove: '' })).toBe('Write a command that puts it on, or one that takes it off.')
  })
})
