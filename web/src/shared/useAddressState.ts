import { useCallback, useEffect, useMemo } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { AddressPart, AddressValues, LookingStep } from './address'
import { changedAddress, goesOn, name, readAddress } from './address'

/** How the address is changed. */
export interface AddressChange {
  /** Whether Back goes to where one was before, and not to what is replaced. */
  readonly replace?: boolean
}

type Set<P> = (change: Partial<AddressValues<P>>, how?: AddressChange) => void

let before: LookingStep | undefined
/** What the address will be when the router has come round to it: two changes may come before that. */
let ahead: { readonly from: string; readonly search: string } | undefined

/**
 * A part of a page's state that lives in its address, so that it can be sent to a colleague and Back undoes the last step of looking. Steps that
 * follow each other quickly and change the same count as one.
 *
 * @param parts the very same at each call: a constant of the module
 */
export function useAddressState<P extends Readonly<Record<string, unknown>>>(parts: P): [AddressValues<P>, Set<P>] {
  const [search] = useSearchParams()
  const navigate = useNavigate()
  const said = search.toString()
  const values = useMemo(() => readAddress(parts, new URLSearchParams(said)), [parts, said])
  useEffect(() => {
    // The router has come round to it: whoever goes back to where it began finds the address as it is there.
    if (ahead?.from !== window.location.href) {
      ahead = undefined
    }
  }, [said])
  const set = useCallback<Set<P>>(
    (change, how = {}) => {
      const from = window.location.href
      const now = ahead?.from === from ? ahead.search : window.location.search
      const next = changedAddress(parts, new URLSearchParams(now), change).toString()
      if (next === new URLSearchParams(now).toString()) {
        return
      }
      const step = {
        path: window.location.pathname,
        names: Object.keys(change).sort().join(),
        at: performance.now(),
      }
      ahead = { from, search: next }
      void navigate(
        { search: next },
        { replace: how.replace === true || goesOn(before, step), preventScrollReset: true },
      )
      before = step
    },
    [navigate, parts],
  )
  return [values, set]
}

const WINDOW = { open: name } satisfies Record<string, AddressPart<string | undefined>>

/** Which window is open over the page, by its name in the address. Closing it leaves no step behind: Back does not open it again. */
export function useOpenWindow(): [string | undefined, (window: string | undefined) => void] {
  const [{ open }, set] = useAddressState(WINDOW)
  const setOpen = useCallback(
    (window: string | undefined) => set({ open: window }, { replace: window === undefined }),
    [set],
  )
  return [open, setOpen]
}
