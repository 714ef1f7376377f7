import { lazy } from 'react'

/** Fetched when it is first opened: other places open it seldom. */
export const ChooseWindow = lazy(() => import('./ChooseWindow').then(part => ({ default: part.ChooseWindow })))
