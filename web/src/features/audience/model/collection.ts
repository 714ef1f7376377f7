import { randomDigits } from '../../../shared/kept'
import { idOf } from '../../../shared/format'

/** An id for a new collection: its name, and some letters so that no other has it. */
export function newCollectionId(name: string): string {
  const words = idOf(name)
  return `${words === '' ? 'collection' : words}-${randomDigits(6)}`
}
