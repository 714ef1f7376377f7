import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'
import type { AudienceKind } from '../model/kinds'

export type Audience = Api['AudienceLine']
export type AudiencesFound = Api['AudiencesFound']

/** What software can be assigned to, by a few letters of its name. */
export function useAudiences(words: string, kinds: readonly AudienceKind[]) {
  return useQuery({
    queryKey: ['audiences', words, kinds],
    queryFn: () =>
      ask<AudiencesFound>(
        'GET',
        `/api/audiences?${new URLSearchParams([['q', words], ...kinds.map(kind => ['kind', kind])])}`,
      ),
    placeholderData: keepPreviousData,
  })
}
