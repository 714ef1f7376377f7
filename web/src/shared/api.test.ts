import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refusal, ask, isRefusal, send, sentence, withQuery } from './api'

interface Asked {
  readonly path: string
  readonly init: RequestInit
}

let asked: Asked[] = []

function answers(response: () => Promise<Response>) {
  vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
    asked.push({ path, init })
    return response()
  })
}

function answer(status: number, body?: unknown) {
  answers(() => Promise.resolve(new Response(body === undefined ? null : JSON.stringify(body), { status })))
}

function headers(): Record<string, string> {
  return asked[0]?.init.headers as Record<string, string>
}

beforeEach(() => {
  asked = []
  vi.stubGlobal('document', { cookie: 'theme=dark; XSRF-TOKEN=a%2Bb; other=1' })
})

afterEach(() => vi.unstubAllGlobals())

describe('asking the server', () => {
  it('gives what it answers', async () => {
    answer(200, { devices: 3 })
    await expect(ask('GET', '/api/reach')).resolves.toEqual({ devices: 3 })
    expect(asked[0]?.path).toBe('/api/reach')
    expect(headers()).toEqual({ Accept: 'application/json' })
    expect(asked[0]?.init.body).toBeUndefined()
  })

  it('shows the token with everything that changes something', async () => {
    answer(200, {})
    await ask('POST', '/api/draft', { why: 'season' })
    expect(headers()['X-XSRF-TOKEN']).toBe('a+b')
    expect(headers()['Content-Type']).toBe('application/json')
    expect(asked[0]?.init.body).toBe('{"why":"season"}')
  })

  it('shows an empty token where there is none yet', async () => {
    vi.stubGlobal('document', { cookie: '' })
    answer(200, {})
    await ask('DELETE', '/api/draft')
    expect(headers()['X-XSRF-TOKEN']).toBe('')
  })

  it('takes an empty answer for nothing', async () => {
    answer(204)
    await expect(ask('PUT', '/api/kits/lab', {})).resolves.toBeUndefined()
  })

  it('sends bytes as they are', async () => {
    answer(200, { received: 4 })
    const bytes = new Blob(['silt'])
    const cancel = new AbortController()
    await expect(send('PUT', '/api/uploads/1', bytes, cancel.signal)).resolves.toEqual({ received: 4 })
    expect(headers()['Content-Type']).toBe('application/octet-stream')
    expect(asked[0]?.init.body).toBe(bytes)
    expect(asked[0]?.init.signal).toBe(cancel.signal)
  })
})

describe('a refusal', () => {
  async function refused(): Promise<Refusal> {
    const error: unknown = await ask('POST', '/api/draft').catch((e: unknown) => e)
    if (!isRefusal(error)) {
      throw new Error('it was not refused')
    }
    return error
  }

  it('tells what the server says', async () => {
    answer(409, { code: 'moved-on', detail: 'Somebody else saved it; look again.' })
    const error = await refused()
    expect([error.status, error.code, error.message]).toEqual([409, 'moved-on', 'Somebody else saved it; look again.'])
  })

  it('has plain words where the server has none', async () => {
    answers(() => Promise.resolve(new Response('<html>', { status: 502 })))
    const error = await refused()
    expect([error.status, error.code, error.message]).toEqual([502, 'fault', 'The server answered 502.'])
  })

  it('says that nobody answers', async () => {
    answers(() => Promise.reject(new TypeError('failed to fetch')))
    const error = await refused()
    expect([error.status, error.code]).toEqual([0, 'unreachable'])
    expect(error.message).toContain('nothing was lost')
  })

  it('is told from other errors', () => {
    expect(isRefusal(new Error('x'))).toBe(false)
    expect(sentence(new Refusal(400, 'bad', 'Write a name.'))).toBe('Write a name.')
    expect(sentence('something')).toContain('the log of the server')
  })
})

describe('an address with parameters', () => {
  it('leaves out what has no value', () => {
    expect(withQuery('/api/fleet', { search: '', page: 0, ou: undefined })).toBe('/api/fleet?page=0')
    expect(withQuery('/api/fleet', {})).toBe('/api/fleet')
  })

  it('writes what an address would read otherwise', () => {
    expect(withQuery('/api/fleet', { search: 'a&b=c d' })).toBe('/api/fleet?search=a%26b%3Dc+d')
  })
})
