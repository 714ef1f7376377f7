import { lazy } from 'react'

const sheet = () => import('./AssignSheet')

/** Fetched when somebody assigns something. */
export const AssignSheet = lazy(() => sheet().then(part => ({ default: part.AssignSheet })))
export const AssignWindow = lazy(() => import('./AssignWindow').then(part => ({ default: part.AssignWindow })))

/** Fetches the sheet beside what it is shown with, rather than after it. */
export function fetchAssignSheet(): void {
  // Where it cannot be fetched, showing it says so.
  void sheet().catch(() => undefined)
}
