import { lazy } from 'react'

/** Fetched when it is first opened. */
export const SessionsWindow = lazy(() => import('./SessionsWindow').then(part => ({ default: part.SessionsWindow })))
