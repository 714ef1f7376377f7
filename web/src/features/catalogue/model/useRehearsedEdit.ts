import { useEffect, useState } from 'react'
import type { Change, Effects } from '../api/catalogue'
import { useEffects } from '../api/catalogue'
import type { Edit, Editing } from './useEdit'

const PAUSE_MS = 350

/** How an edit that is being written stands. */
export type Rehearsed =
  | { readonly kind: 'unchanged' }
  | { readonly kind: 'rehearsing' }
  | { readonly kind: 'refused' }
  | { readonly kind: 'known'; readonly effects: Effects }

/** Rehearses an edit on the whole fleet whenever the writing pauses, so that nobody saves a surprise. */
export function useRehearsedEdit(editing: Editing, edit: Edit, possible: boolean): Rehearsed {
  const [change, setChange] = useState<Change | undefined>(undefined)
  const wanted = JSON.stringify(editing.change(edit))
  const changes = possible && wanted !== JSON.stringify(editing.change(record => record))
  useEffect(() => {
    const timer = window.setTimeout(() => setChange(changes ? (JSON.parse(wanted) as Change) : undefined), PAUSE_MS)
    return () => window.clearTimeout(timer)
  }, [wanted, changes])
  const effects = useEffects(change)
  if (!changes) {
    return { kind: 'unchanged' }
  }
  if (JSON.stringify(change) !== wanted || effects.isFetching) {
    return { kind: 'rehearsing' }
  }
  return effects.data === undefined ? { kind: 'refused' } : { kind: 'known', effects: effects.data }
}
