import type { components } from './schema'

/** The shapes that the server's API speaks in, generated from its own description. */
export type Api = components['schemas']

/** One thing that is wrong with what was sent. */
export interface RefusedPart {
  readonly code: string
  /** Where in what was sent. */
  readonly place: string
  readonly sentence: string
}

/** What the server answered when it did not do what was asked (RFC 9457). */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly problems: readonly RefusedPart[] = [],
  ) {
    super(sentence)
  }
}

export function isRefusal(error: unknown): error is Refusal {
  return error instanceof Refusal
}

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'

/** Asks the server. `undefined` stands for an empty answer. */
export async function ask<T>(method: Method, path: string, body?: unknown): Promise<T> {
  return body === undefined
    ? request<T>(method, path)
    : request<T>(method, path, { type: 'application/json', content: JSON.stringify(body) })
}

/** Sends bytes as they are. */
export async function send<T>(method: 'PUT', path: string, bytes: Blob, signal: AbortSignal): Promise<T> {
  return request<T>(method, path, { type: 'application/octet-stream', content: bytes }, signal)
}

interface Body {
  readonly type: string
  readonly content: string | Blob
}

async function request<T>(method: Method, path: string, body?: Body, signal?: AbortSignal): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json' }
  if (method !== 'GET') {
    headers['X-XSRF-TOKEN'] = cookie('XSRF-TOKEN')
  }
  if (body !== undefined) {
    headers['Content-Type'] = body.type
  }
  const response = await fetch(path, {
    method,
    headers,
    ...(body !== undefined && { body: body.content }),
    ...(signal !== undefined && { signal }),
  }).catch(() => {
    throw new Refusal(0, 'unreachable', 'Rivo does not answer. It may be restarting; nothing was lost.')
  })
  if (!response.ok) {
    throw await refusal(response)
  }
  return (response.status === 204 ? undefined : await response.json()) as T
}

async function refusal(response: Response): Promise<Refusal> {
  const problem: unknown = await response.json().catch(() => ({}))
  const { code, detail, problems } = problem as { code?: string; detail?: string; problems?: readonly RefusedPart[] }
  return new Refusal(
    response.status,
    code ?? 'fault',
    detail ?? `The server answered ${response.status}.`,
    problems ?? [],
  )
}

function cookie(name: string): string {
  const found = document.cookie.split('; ').find(part => part.startsWith(`${name}=`))
  return found === undefined ? '' : decodeURIComponent(found.slice(name.length + 1))
}

/** An address with those parameters that have a value. */
export function withQuery(path: string, parameters: Record<string, string | number | undefined>): string {
  const query = new URLSearchParams()
  for (const [name, value] of Object.entries(parameters)) {
    if (value !== undefined && value !== '') {
      query.set(name, String(value))
    }
  }
  const text = query.toString()
  return text === '' ? path : `${path}?${text}`
}

export function sentence(error: unknown): string {
  return error instanceof Error ? error.message : 'Something went wrong; the log of the server says more.'
}
