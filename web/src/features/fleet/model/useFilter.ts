import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import type { Filter } from '../api/fleet'

/** The filter as the address has it, and how to change a part of it. */
export function useFilter(): [Filter, (change: Partial<Filter>) => void] {
  const [parameters, setParameters] = useSearchParams()
  const text = parameters.toString()
  const filter = useMemo<Filter>(() => {
    const given = new URLSearchParams(text)
    const get = (name: string) => given.get(name) ?? undefined
    return { q: get('q'), ou: get('ou'), title: get('title'), outcome: get('outcome'), state: get('state') }
  }, [text])
  const change = (part: Partial<Filter>) =>
    setParameters(
      () => {
        // The address itself, since two changes may come before the page is drawn again.
        const next = new URLSearchParams(window.location.search)
        for (const [name, value] of Object.entries(part)) {
          if (value === undefined || value === '') {
            next.delete(name)
          } else {
            next.set(name, value)
          }
        }
        return next
      },
      { replace: true },
    )
  return [filter, change]
}
