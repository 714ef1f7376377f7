import type { ReactNode } from 'react'
import { Suspense, useState } from 'react'
import { OPENING } from '../typedAhead'

/** Fetches a window when it is first opened, and keeps it then, so that it can close as windows do. */
export function Later({ open, children }: { open: boolean; children: ReactNode }) {
  const [wanted, setWanted] = useState(open)
  if (open && !wanted) {
    setWanted(true)
  }
  return wanted ? <Suspense fallback={open ? <span hidden {...OPENING} /> : null}>{children}</Suspense> : null
}
