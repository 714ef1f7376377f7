import { useCallback, useState } from 'react'
import { kept } from '../../../shared/kept'
import type { PartsOf } from '../../../shared/withParts'
import { withParts } from '../../../shared/withParts'
import type { AudienceData, Collection } from '../api/audiences'

const KEPT = 'rivo.collection'

/**
 * A collection while it is written. What has been written stays with the tab until it is kept in the draft or given up.
 *
 * @param view of the collection; nothing for a new one
 */
export function useCollection(view: AudienceData | undefined) {
  const published = view?.collection?.document
  const key = `${KEPT} ${published?.id ?? 'new'}`
  const [edited, setEdited] = useState(() => kept<Collection>(sessionStorage, key))
  const current: Collection = edited ?? published ?? { id: '', name: '' }
  const change = (part: PartsOf<Collection>) => {
    const next = withParts(current, part)
    sessionStorage.setItem(key, JSON.stringify(next))
    setEdited(next)
  }
  const forget = useCallback(() => {
    sessionStorage.removeItem(key)
    setEdited(undefined)
  }, [key])
  return { current, isEdited: edited !== undefined, change, forget, revision: view?.collection?.revision ?? 0 }
}
