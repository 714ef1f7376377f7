import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type DirectoryState = Api['DirectoryState']

const KEY = ['directory']

export function useDirectory() {
  return useQuery({ queryKey: KEY, queryFn: () => ask<DirectoryState>('GET', '/api/directory') })
}

export function useScan() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (acceptRemovals: boolean) =>
      ask<DirectoryState>('POST', withQuery('/api/directory/scan', { acceptRemovals: String(acceptRemovals) })),
    onSuccess: state => queries.setQueryData(KEY, state),
  })
}
