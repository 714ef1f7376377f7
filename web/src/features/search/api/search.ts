import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type Hit = Api['Hit']

export function useSearch(words: string) {
  return useQuery({
    queryKey: ['search', words],
    queryFn: () => ask<Api['Hits']>('GET', withQuery('/api/search', { q: words })),
    placeholderData: keepPreviousData,
  })
}
