import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type TrustedRoot = Api['RootLine']

/** What is to be trusted: a text, or bytes in base 64. */
export type NewRoot = Api['NewRoot']

export function useTrustedRoots() {
  return useQuery({ queryKey: ['trusted-roots'], queryFn: () => ask<TrustedRoot[]>('GET', '/api/trusted-roots') })
}

/** Gives those that were not trusted before. */
export function useAddRoot() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (root: NewRoot) => ask<TrustedRoot[]>('POST', '/api/trusted-roots', root),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['trusted-roots'] }),
  })
}

export function useDeleteRoot() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (id: string) => ask<void>('DELETE', `/api/trusted-roots/${encodeURIComponent(id)}`),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['trusted-roots'] }),
  })
}
