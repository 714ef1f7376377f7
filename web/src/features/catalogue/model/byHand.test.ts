import { describe, expect, it } from 'vitest'
import type { Written } from './byHand'
import { asPage, problemsOf, writtenRelease, writtenTitle } from './byHand'
import { emptyStep } from './record'

const written: Written = {
  name: ' Fluxplayer removal ',
  maker: 'Flux Media',
  version: '1',
  fits: '',
  install: '',
  remove: '{uninstaller:Fluxplayer} --quiet',
  seenBy: 'Fluxplayer',
  scope: 'device',
  web: undefined,
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
    expect(problemsOf(written)).toEqual({})
    expect(problemsOf({ ...written, name: '…' })).toEqual({ name: 'Give it a name.' })
    expect(problemsOf({ ...written, version: ' ' })).toEqual({ version: 'Give it a version.' })
    expect(problemsOf({ ...written, name: '', remove: '' })).toEqual({
      name: 'Give it a name.',
      install: 'Write an install command or a removal command.',
    })
  })
})

describe('a web page', () => {
  const page = asPage({ ...written, web: ' https://rota.quillbrook.example/week?of=1 ' })

  it('has an address, and installs nothing', () => {
    expect(problemsOf(page)).toEqual({})
    const title = writtenTitle(page)
    expect(title.about.web).toBe('https://rota.quillbrook.example/week?of=1')
    expect(title.releases[0]?.variants[0]).toMatchObject({ install: [], remove: [], presence: { checks: [] } })
  })

  it('needs a whole one', () => {
    for (const web of [
      '',
      'rota',
      'ftp://rota.example',
      'javascript:alert(1)',
      'https://',
      'https://me@rota.example/',
      'https://a b',
    ]) {
      expect(problemsOf({ ...page, web })).toHaveProperty('web')
    }
  })
})

describe('what is written', () => {
  it('is all there is, without the room around it', () => {
    const title = writtenTitle({
      name: ' Brookmap ',
      maker: ' Fenwick ',
      version: ' 2.0 ',
      fits: ' arch eq "x64" ',
      install: ' setup --quiet ',
      remove: ' setup --off ',
      seenBy: ' Brookmap Studio ',
      scope: 'user',
      web: undefined,
    })
    expect([title.id, title.name, title.maker]).toEqual(['brookmap', 'Brookmap', 'Fenwick'])
    expect(Object.values(title.about).join('')).toBe('')
    expect(title.scope).toBe('user')
    expect([title.trustedSigners, title.conflictsWith]).toEqual([[], []])
    expect(title.releases).toEqual([
      {
        version: '2.0',
        offered: false,
        note: 'not offered yet',
        needs: [],
        replaces: [],
        choices: [],
        variants: [
          {
            id: 'all',
            fits: 'arch eq "x64"',
            asPerson: false,
            contents: [],
            install: [{ ...emptyStep(), text: 'Install', command: 'setup --quiet' }],
            remove: [{ ...emptyStep(), text: 'Remove', command: 'setup --off' }],
            repair: [],
            presence: { any: false, checks: [{ kind: 'inventory', subject: 'Brookmap Studio', version: '' }] },
          },
        ],
      },
    ])
  })

  it('has no check where nothing is written of one', () => {
    expect(writtenRelease({ ...written, seenBy: ' ' }).variants[0]?.presence.checks).toEqual([])
  })

  it('needs one command, whichever', () => {
    expect(problemsOf({ ...written, install: 'setup', remove: ' ' })).toEqual({})
    expect(problemsOf({ ...written, install: ' ', remove: ' ' }).install).toContain('Write an install command')
  })
})
