import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type StateCounts = Api['StateCounts']
export type StateCount = Api['StateCount']
export type Expectation = Api['Expectation']

/** Devices report all the while, and counting costs a look at each. */
const ANEW_MS = 15_000

/**
 * How the units of a title stand.
 *
 * @param title nothing where none is asked for
 * @param ou in it and below; nothing for everywhere
 */
export function useStates(title: string | undefined, ou?: string) {
  return useQuery({
    enabled: title !== undefined,
    queryKey: ['states', title, ou ?? ''],
    queryFn: () => ask<StateCounts>('GET', withQuery(`/api/titles/${encodeURIComponent(title ?? '')}/states`, { ou })),
    placeholderData: keepPreviousData,
    refetchInterval: ANEW_MS,
  })
}
