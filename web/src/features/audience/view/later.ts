import { lazy } from 'react'

/** Fetched when somebody makes a collection of something. */
export const KeepWindow = lazy(() => import('./KeepWindow').then(part => ({ default: part.KeepWindow })))
export const NewCollectionWindow = lazy(() =>
  import('./NewCollectionWindow').then(part => ({ default: part.NewCollectionWindow })),
)
