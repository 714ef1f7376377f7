import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type TriedRule = Api['TriedRule']
export type WrittenRule = Api['WrittenRule']
export type ValueLine = Api['ValueLine']

/** What a rule comes to, while it is written. */
export function useTriedRule(written: WrittenRule) {
  return useQuery({
    queryKey: ['rule', written],
    queryFn: async () => ({ written, tried: await ask<TriedRule>('POST', '/api/rules/trial', written) }),
    placeholderData: keepPreviousData,
    gcTime: 10_000,
  })
}

export function useAttributes() {
  return useQuery({
    queryKey: ['rule', 'attributes'],
    queryFn: () => ask<Api['AttributeLine'][]>('GET', '/api/rules/attributes'),
    staleTime: 60_000,
  })
}

/** Values that the fleet has of an attribute. */
export function useValues(attribute: string, typed: string, wanted: boolean) {
  return useQuery({
    queryKey: ['rule', 'values', attribute, typed],
    queryFn: () => ask<ValueLine[]>('GET', withQuery('/api/rules/values', { attribute, q: typed })),
    enabled: wanted && attribute !== '',
    placeholderData: keepPreviousData,
    gcTime: 30_000,
  })
}
