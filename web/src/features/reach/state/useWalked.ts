import { useCallback, useEffect, useState } from 'react'

const PAUSE_MS = 150

/**
 * Which OU one has walked to. It is known at once, and put into the address when one stays: a new address is looked at by the whole page,
 * which would be felt at each step.
 *
 * @param kept the one in the address
 * @param keep puts one there; the very same at each call
 */
export function useWalked(
  kept: string | undefined,
  keep: (ou: string) => void,
): readonly [string | undefined, (ou: string) => void] {
  const [walked, setWalked] = useState<{ readonly from: string | undefined; readonly ou: string } | undefined>(
    undefined,
  )
  // What was walked to before the address became another is over.
  const ahead = walked !== undefined && walked.from === kept ? walked.ou : undefined
  useEffect(() => {
    if (ahead === undefined) {
      return undefined
    }
    const timer = window.setTimeout(() => keep(ahead), PAUSE_MS)
    return () => window.clearTimeout(timer)
  }, [ahead, keep])
  const walk = useCallback((ou: string) => setWalked({ from: kept, ou }), [kept])
  return [ahead ?? kept, walk]
}
