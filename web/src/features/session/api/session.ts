import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type Session = Api['Session']
export type OpenSession = Api['SessionView']

const KEY = ['session']

/** Null when nobody is signed in. */
export function useSessionQuery() {
  return useQuery({
    queryKey: KEY,
    queryFn: async () => (await ask<Session | undefined>('GET', '/api/session')) ?? null,
    staleTime: Number.POSITIVE_INFINITY,
  })
}

/** @param place where one signs in: to everything, or to one's own shelf */
export function useSignIn(place: '/api/session' | '/api/shelf/session') {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (credentials: Api['Credentials']) => ask<Session>('POST', place, credentials),
    onSuccess: session => {
      queries.setQueryData(KEY, session)
    },
  })
}

/** By a link that one's computer has opened. */
export function useSignInByLink() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (token: string) => ask<Session>('POST', '/api/shelf/session/link', { token }),
    onSuccess: session => {
      queries.clear()
      queries.setQueryData(KEY, session)
    },
  })
}

/** @param to where one is then */
export function useSignOut(to = '/sign-in') {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => ask('DELETE', '/api/session'),
    onSettled: () => {
      queries.clear()
      window.location.assign(to)
    },
  })
}

/** Everywhere that the same person is signed in. */
export function useSessions() {
  return useQuery({
    queryKey: ['sessions'],
    queryFn: () => ask<OpenSession[]>('GET', '/api/sessions'),
    refetchOnMount: 'always',
  })
}

export function useEndSession() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (id: string) => ask('DELETE', `/api/sessions/${encodeURIComponent(id)}`),
    onSettled: () => queries.invalidateQueries({ queryKey: ['sessions'] }),
  })
}
