import { hashKey } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { sentence } from '../../../shared/api'
import type { Effects } from '../api/catalogue'
import { useEffects } from '../api/catalogue'

const PAUSE_MS = 350

/** How an edit that is being written stands. */
export type Rehearsed =
  | { readonly kind: 'unchanged' }
  | { readonly kind: 'rehearsing' }
  | { readonly kind: 'refused'; readonly why: string }
  /** With whether it is being rehearsed again, since something has changed meanwhile. */
  | { readonly kind: 'known'; readonly effects: Effects; readonly again: boolean }

/**
 * Rehearses an edit on the whole fleet whenever the writing pauses, so that nobody saves a surprise.
 *
 * @param address where it is rehearsed
 * @param before what stands there now
 * @param wanted what is being written, in the same shape
 */
export function useRehearsedEdit<T>(address: string, before: T, wanted: T, possible: boolean): Rehearsed {
  const [change, setChange] = useState<string | undefined>(undefined)
  const text = JSON.stringify(wanted)
  // Compared whatever order its parts are written in.
  const changes = possible && hashKey([wanted]) !== hashKey([before])
  useEffect(() => {
    const timer = window.setTimeout(() => setChange(changes ? text : undefined), PAUSE_MS)
    return () => window.clearTimeout(timer)
  }, [text, changes])
  const effects = useEffects(address, change)
  if (!changes) {
    return { kind: 'unchanged' }
  }
  if (change !== text || effects.isPending) {
    return { kind: 'rehearsing' }
  }
  // One that failed says nothing of how it is now, whatever was found before.
  return effects.isError
    ? { kind: 'refused', why: sentence(effects.error) }
    : { kind: 'known', effects: effects.data, again: effects.isFetching }
}
