import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type RequestRow = Api['RequestRow']
export type AnswerBody = Api['AnswerBody']

/** Which requests; every part that is given has to hold. */
export interface Which {
  readonly state?: RequestRow['state']
  readonly title?: string
  readonly device?: string
  /** The id of who asked. */
  readonly person?: string
  readonly limit?: number
}

/** What people have asked for and taken, what waits for an answer first. */
export function useRequests(which: Which) {
  return useQuery({
    queryKey: ['requests', which],
    queryFn: () => ask<Api['RequestRows']>('GET', withQuery('/api/requests', { ...which })),
    placeholderData: keepPreviousData,
  })
}

export function useAnswer() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: AnswerBody) => ask('POST', '/api/requests/answer', body),
    onSettled: () => Promise.all(['requests', 'today'].map(key => queries.invalidateQueries({ queryKey: [key] }))),
  })
}
