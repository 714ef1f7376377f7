import type { AddressPart } from '../../../shared/address'
import { name, oneOf } from '../../../shared/address'

/** Nothing for what somebody has written by hand and is no encoding. */
function decoded(text: string): readonly string[] {
  try {
    return [decodeURIComponent(text)]
  } catch {
    return []
  }
}

/** Some texts, whatever is in them. */
const texts: AddressPart<readonly string[]> = {
  read: given =>
    (given ?? '')
      .split(' ')
      .filter(one => one !== '')
      .flatMap(decoded),
  write: value => (value.length === 0 ? undefined : value.map(encodeURIComponent).join(' ')),
}

/**
 * What the address says of the sheet: `assign` is `new` or the id of an assignment, `kit` the kit that is assigned in place of the title, `for`
 * whom it opens with, `also` further titles that are assigned alike.
 */
export const ASSIGN_ADDRESS = {
  assign: name,
  kit: name,
  for: texts,
  also: texts,
  follows: oneOf('device', 'user'),
  intent: oneOf('required', 'available', 'uninstall'),
}

interface Assigning {
  /** The title on whose map it is written. */
  readonly title: string
  /** The assignment that is edited; nothing for a new one. */
  readonly id?: string
  readonly kit?: string
  readonly include?: readonly string[]
  /** Further titles, by their ids. */
  readonly also?: readonly string[]
  readonly follows?: 'device' | 'user'
}

/** Where an assignment is written. */
export function assignAddress({ title, id, kit, include = [], also = [], follows }: Assigning): string {
  const query = new URLSearchParams({ assign: id ?? 'new' })
  if (kit !== undefined) {
    query.set('kit', kit)
  }
  const whom = texts.write(include)
  if (whom !== undefined) {
    query.set('for', whom)
  }
  const others = texts.write(also.map(one => `title:${one}`))
  if (others !== undefined) {
    query.set('also', others)
  }
  if (follows === 'user') {
    query.set('follows', follows)
  }
  return `/reach/${encodeURIComponent(title)}?${query}`
}
