import { useEffect, useState } from 'react'

/** A value that follows once it has stayed the same for so long: whoever walks past something need not have it fetched. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), ms)
    return () => window.clearTimeout(timer)
  }, [value, ms])
  return settled
}
