import { useCallback, useLayoutEffect, useRef } from 'react'

/** The very same function at every drawing, which does what the one given last does: so what is told it need not be drawn anew. Not to be called while drawing. */
export function useSteady<A extends readonly unknown[]>(act: (...args: A) => void): (...args: A) => void {
  const latest = useRef(act)
  useLayoutEffect(() => {
    latest.current = act
  })
  return useCallback((...args: A) => latest.current(...args), [])
}
