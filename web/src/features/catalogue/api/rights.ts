import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'
import type { Fixed } from './catalogue'
import { address } from './catalogue'

export type Seats = Api['SeatsView']
export type Misfits = Api['Misfits']

/** What assignments and people have fixed of a title's choices. */
export function useFixed(title: string) {
  return useQuery({
    queryKey: ['title', title, 'choices'],
    queryFn: () => ask<Fixed[]>('GET', `${address(title)}/choices`),
  })
}

/** Fixes what a person gets; with no values everything is left open again. */
export function useFix(title: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ person, values }: { person: string; values: Record<string, string> }) =>
      ask<void>('PUT', `${address(title)}/choices/people/${encodeURIComponent(person)}`, { values }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['title', title] }),
  })
}

/** Lets a release be offered with a file that was changed after it was signed. */
export function useUseChanged(title: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ sha256, why }: { sha256: string; why: string }) =>
      ask<void>('POST', `/api/contents/${encodeURIComponent(sha256)}/use`, { why }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['title', title] }),
  })
}

/** Accepts the licence text that was read. */
export function useAccept(title: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (text: string) => ask<void>('POST', `${address(title)}/licence`, { text }),
    onSuccess: () => queries.invalidateQueries(),
  })
}

/** Has every mirror fetch the content of a release. */
export function useCopyEverywhere(title: string, version: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => ask<void>('POST', withQuery('/api/mirrors/copies', { title, version })),
    onSettled: () => queries.invalidateQueries({ queryKey: ['title', title] }),
  })
}

export function useSeats(title: string, limit: number) {
  return useQuery({
    queryKey: ['title', title, 'seats', limit],
    queryFn: () => ask<Seats>('GET', withQuery(`${address(title)}/seats`, { limit })),
  })
}

/** The devices that no variant of a release fits. */
export function useMisfits(title: string, version: string, limit: number) {
  return useQuery({
    queryKey: ['title', title, 'misfits', version, limit],
    queryFn: () => ask<Misfits>('GET', withQuery(`${address(title)}/misfits`, { version, limit })),
  })
}
