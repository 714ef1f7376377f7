import { idOf } from '../../../shared/format'

/** An id for a new collection: its name, and some letters so that no other has it. */
export function newCollectionId(name: string): string {
  const words = idOf(name)
  return `${words === '' ? 'collection' : words}-${crypto.randomUUID().slice(0, 6)}`
}
