import { lazy } from 'react'

/** Fetched when somebody assigns something. */
export const AssignSheet = lazy(() => import('./AssignSheet').then(part => ({ default: part.AssignSheet })))
export const AssignWindow = lazy(() => import('./AssignWindow').then(part => ({ default: part.AssignWindow })))
