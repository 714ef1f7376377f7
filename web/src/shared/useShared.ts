import { replaceEqualDeep } from '@tanstack/react-query'
import { useState } from 'react'

/**
 * The newest of some data, in which every part that says the same as before is the very same object, so that what shows it need not be drawn
 * anew. For answers to different questions; those to one are shared already.
 */
export function useShared<T>(data: T): T {
  const [shared, setShared] = useState(data)
  const next = shared === data ? data : replaceEqualDeep(shared, data)
  if (next !== shared) {
    setShared(() => next)
  }
  return next
}
