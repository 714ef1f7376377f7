/** A change of some parts; what is `undefined` is taken out. */
export type PartsOf<T> = { [K in keyof T]?: T[K] | undefined }

/** The same with parts of it changed. What is not said in JSON is not there: no part is left as `undefined`. */
export function withParts<T extends object>(whole: T, change: PartsOf<T>): T {
  const next: Record<string, unknown> = { ...whole, ...change }
  for (const key of Object.keys(next)) {
    if (next[key] === undefined) {
      delete next[key]
    }
  }
  return next as T
}
