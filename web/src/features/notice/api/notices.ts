import { useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type NoticeLine = Api['NoticeLine']

/** Whose notices: those of a device, or those to and by a person. */
export type Whose = { readonly device: string } | { readonly person: string }

/** What was told, asked and answered, the newest first. */
export function useNotices(whose: Whose) {
  const address =
    'device' in whose
      ? `/api/devices/${encodeURIComponent(whose.device)}/notices`
      : `/api/people/${encodeURIComponent(whose.person)}/notices`
  // What a device reports makes all that is known of it old.
  const queryKey = 'device' in whose ? ['device', whose.device, 'notices'] : ['notices', whose.person]
  return useQuery({ queryKey, queryFn: () => ask<NoticeLine[]>('GET', address) })
}
