import { useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { lazy, Suspense, useEffect } from 'react'
import { Navigate } from 'react-router'
import { isRefusal, sentence } from '../../../shared/api'
import { Notice } from '../../../shared/ui/Notice'
import { useSessionQuery } from '../api/session'
import { SessionContext } from '../state/SessionContext'

const SignInPage = lazy(() => import('./SignInPage').then(page => ({ default: page.SignInPage })))

/** Lets in whoever is signed in; everybody else sees the sign-in, at the address they asked for. */
export function SessionGate({ children }: { children: ReactNode }) {
  const session = useSessionQuery()
  useLeaveWhenOver()
  if (session.isPending) {
    return null
  }
  if (session.data === undefined) {
    return (
      <Notice alone heading="Rivo does not answer">
        {sentence(session.error)} This page tries again by itself.
      </Notice>
    )
  }
  if (session.data === null) {
    return (
      <Suspense fallback={null}>
        <SignInPage />
      </Suspense>
    )
  }
  if (!session.data.administrator) {
    return <Navigate to="/shelf" replace />
  }
  return <SessionContext.Provider value={session.data}>{children}</SessionContext.Provider>
}

/** When any answer says that the session is over, the sign-in comes back. */
export function useLeaveWhenOver(): void {
  const queries = useQueryClient()
  useEffect(
    () =>
      queries.getQueryCache().subscribe(event => {
        const error: unknown = event.query.state.error
        if (isRefusal(error) && error.status === 401 && event.query.queryKey[0] !== 'session') {
          queries.setQueryData(['session'], null)
        }
      }),
    [queries],
  )
}
