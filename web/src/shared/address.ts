/** How one part of the address is read and written. */
export interface AddressPart<T> {
  readonly read: (text: string | null) => T
  /** Nothing where the address need not say it. */
  readonly write: (value: T) => string | undefined
}

/** A text; empty where the address has none. */
export const text: AddressPart<string> = {
  read: given => given ?? '',
  write: value => (value === '' ? undefined : value),
}

/** A name of something; nothing where the address has none. */
export const name: AddressPart<string | undefined> = {
  read: given => (given === null || given === '' ? undefined : given),
  write: value => value,
}

/** One of a few; the first of them where the address says nothing, or what there is not. */
export function oneOf<T extends string>(first: T, ...others: readonly T[]): AddressPart<T> {
  return {
    read: given => [first, ...others].find(one => one === given) ?? first,
    write: value => (value === first ? undefined : value),
  }
}

/** A whole number from `least` to `most`; `least` where the address says nothing, or what is none. */
export function whole(least: number, most: number): AddressPart<number> {
  return {
    read: given => {
      const read = given !== null && /^\d+$/.test(given) ? Number(given) : least
      return Math.min(most, Math.max(least, read))
    },
    write: value => (value === least ? undefined : String(value)),
  }
}

export type AddressValues<P> = { readonly [K in keyof P]: P[K] extends AddressPart<infer T> ? T : never }

/** What an address says, as far as the parts go. */
export function readAddress<P extends object>(parts: P, search: URLSearchParams): AddressValues<P> {
  const values = Object.entries(parts as Record<string, AddressPart<unknown>>).map(
    ([key, part]) => [key, part.read(search.get(key))] as const,
  )
  return Object.fromEntries(values) as AddressValues<P>
}

/** An address with some parts changed; whatever else stands in it stays. */
export function changedAddress<P extends object>(
  parts: P,
  search: URLSearchParams,
  change: Partial<AddressValues<P>>,
): URLSearchParams {
  const next = new URLSearchParams(search)
  for (const [key, value] of Object.entries(change)) {
    const written = (parts as Record<string, AddressPart<unknown>>)[key]?.write(value)
    if (written === undefined) {
      next.delete(key)
    } else {
      next.set(key, written)
    }
  }
  return next
}

/** A step of looking: which parts of the address it changed, and when. */
export interface LookingStep {
  readonly path: string
  readonly names: string
  readonly at: number
}

const TOGETHER_MS = 1500

/** Whether a step goes on with the one before, as the next letter of a word does: Back then undoes them together. */
export function goesOn(before: LookingStep | undefined, next: LookingStep): boolean {
  return (
    before !== undefined &&
    before.path === next.path &&
    before.names === next.names &&
    next.at - before.at < TOGETHER_MS
  )
}
