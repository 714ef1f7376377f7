import { useCallback, useEffect, useMemo, useState } from 'react'
import { kept } from '../../../shared/kept'
import type { PartsOf } from '../../../shared/withParts'
import { withParts } from '../../../shared/withParts'
import type { Assignment, Opening } from '../model/sheet'
import { blank, newId } from '../model/sheet'
import { useAssignment } from '../api/assign'
import type { Written } from '../api/assign'

const KEPT = 'rivo.sheet'

/** A sheet that is being written. */
export interface Sheet {
  readonly written: Written
  /** Whether it is new. */
  readonly isNew: boolean
  readonly setAlso: (also: readonly string[]) => void
  readonly change: (change: PartsOf<Assignment>) => void
  /** Forgets what has been written. */
  readonly forget: () => void
}

function begun(opening: Opening): Written {
  return { assignment: blank(newId(), opening), revision: 0, also: opening.also ?? [] }
}

function left(key: string): Written | undefined {
  return kept<Written>(sessionStorage, `${KEPT} ${key}`)
}

/**
 * The assignment of a sheet while it is written. What has been written stays with the tab until it is kept in the draft or given up: neither
 * Back nor loading the page anew loses it.
 *
 * @param id of the assignment that is edited; nothing for a new one
 */
export function useSheet(id: string | undefined, opening: Opening): Sheet | undefined {
  const known = useAssignment(id)
  const key = id ?? `new ${[opening.subject, ...(opening.also ?? []), ...opening.include].join(' ')}`
  const [state, setState] = useState<{ key: string; written: Written | undefined }>(() => ({
    key,
    written: left(key) ?? (id === undefined ? begun(opening) : undefined),
  }))
  if (state.key !== key) {
    setState({
      key,
      written: left(key) ?? (id === undefined ? begun(opening) : undefined),
    })
  }
  const { data } = known
  const written = useMemo<Written | undefined>(
    () => state.written ?? (data === undefined ? undefined : { assignment: data.document, revision: data.revision }),
    [state.written, data],
  )
  const touched = state.written
  useEffect(() => {
    if (touched !== undefined) {
      sessionStorage.setItem(`${KEPT} ${key}`, JSON.stringify(touched))
    }
  }, [key, touched])
  const change = useCallback<Sheet['change']>(
    one =>
      setState(before => {
        const from = before.written ?? written
        return from === undefined
          ? before
          : { key: before.key, written: { ...from, assignment: withParts(from.assignment, one) } }
      }),
    [written],
  )
  const setAlso = useCallback<Sheet['setAlso']>(
    also =>
      setState(before => {
        const from = before.written ?? written
        return from === undefined ? before : { key: before.key, written: { ...from, also } }
      }),
    [written],
  )
  const forget = useCallback(() => sessionStorage.removeItem(`${KEPT} ${key}`), [key])
  const isNew = id === undefined
  // The very same as long as nothing else is written, so that what shows parts of it is not drawn anew for what it does not show.
  return useMemo(
    () => (written === undefined ? undefined : { written, isNew, setAlso, change, forget }),
    [written, isNew, setAlso, change, forget],
  )
}
