import { useCallback, useEffect, useState } from 'react'

const PAUSE_MS = 150

/**
 * @param kept the OU that was in the address when this was written
 * @param walked where one has walked to since; nothing while that is the same
 * @param asked what was put into the address last, which may not have come there yet
 */
interface Walk {
  readonly kept: string | undefined
  readonly walked?: string | undefined
  readonly asked?: string | undefined
}

/**
 * Which OU one has walked to. It is known at once, and put into the address when one stays: a new address is looked at by the whole page,
 * which would be felt at each step. An address that becomes another by itself, as by Back, ends the walk.
 *
 * @param kept the one in the address
 * @param keep puts one there; the very same at each call
 */
export function useWalked(
  kept: string | undefined,
  keep: (ou: string) => void,
): readonly [string | undefined, (ou: string) => void] {
  const [walk, setWalk] = useState<Walk>({ kept })
  if (walk.kept !== kept) {
    // Of what was put there by the walk itself, the steps that came meanwhile go on.
    setWalk({ kept, walked: walk.asked === kept && walk.walked !== kept ? walk.walked : undefined })
  }
  const { walked } = walk
  useEffect(() => {
    if (walked === undefined) {
      return undefined
    }
    const timer = window.setTimeout(() => {
      setWalk(before => ({ ...before, asked: walked }))
      keep(walked)
    }, PAUSE_MS)
    return () => window.clearTimeout(timer)
  }, [walked, keep])
  const walkTo = useCallback((ou: string) => setWalk(before => ({ ...before, walked: ou })), [])
  return [walked ?? kept, walkTo]
}
