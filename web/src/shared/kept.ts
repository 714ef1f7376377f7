/** What this browser keeps under a key; nothing where it keeps nothing, or what cannot be read any more. */
export function kept<T>(storage: Storage, key: string): T | undefined {
  const text = storage.getItem(key)
  if (text === null) {
    return undefined
  }
  try {
    return JSON.parse(text) as T
  } catch {
    storage.removeItem(key)
    return undefined
  }
}

/** So many random hexadecimal digits. For ids; also where the page did not come by TLS. */
export function randomDigits(n: number): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(n)), byte => (byte & 15).toString(16)).join('')
}
