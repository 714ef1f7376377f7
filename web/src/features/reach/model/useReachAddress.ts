import { useMemo } from 'react'
import { useSearchParams } from 'react-router'

/** What the address says of the view, so that it can be sent to a colleague. */
export interface ReachAddress {
  readonly ou: string | undefined
  readonly zoom: string | undefined
  readonly table: boolean
  readonly select: (ou: string) => void
  readonly zoomTo: (ou: string | undefined) => void
  readonly showTable: (on: boolean) => void
}

export function useReachAddress(): ReachAddress {
  const [parameters, setParameters] = useSearchParams()
  return useMemo(() => {
    const set = (name: string, value: string | undefined) =>
      setParameters(
        () => {
          // The address itself, since two changes may come before the page is drawn again.
          const next = new URLSearchParams(window.location.search)
          if (value === undefined) {
            next.delete(name)
          } else {
            next.set(name, value)
          }
          return next
        },
        { replace: true },
      )
    return {
      ou: parameters.get('ou') ?? undefined,
      zoom: parameters.get('in') ?? undefined,
      table: parameters.get('as') === 'table',
      select: ou => set('ou', ou),
      zoomTo: ou => set('in', ou),
      showTable: on => set('as', on ? 'table' : undefined),
    }
  }, [parameters, setParameters])
}
