import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type Reach = Api['ReachView']
export type OuReach = Api['OuReach']
export type OuTrail = Api['OuTrail']
export type Here = Api['Here']
export type Counts = Api['OutcomeCounts']
export type Across = Api['Across']
export type Rung = Api['RungView']
export type TitleLine = Api['TitleLine']

export function useTitles() {
  return useQuery({ queryKey: ['titles'], queryFn: () => ask<TitleLine[]>('GET', '/api/titles') })
}

function address(title: string): string {
  return `/api/reach/${encodeURIComponent(title)}`
}

/**
 * A part of the map.
 *
 * @param top the OU that it begins with; the root when empty
 * @param open the OUs of which all are shown
 * @param lit the audience that is lit up
 */
export function useReach(title: string, top: string, open: readonly string[], lit: string | undefined) {
  return useQuery({
    queryKey: ['reach', title, 'map', top, open, lit],
    queryFn: () => {
      const query = new URLSearchParams(open.map(ou => ['open', ou]))
      if (top !== '') {
        query.set('in', top)
      }
      if (lit !== undefined) {
        query.set('lit', lit)
      }
      return ask<Reach>('GET', `${address(title)}?${query}`)
    },
    enabled: title !== '',
    placeholderData: keepPreviousData,
  })
}

/** What stands in each of these OUs itself. */
export function useBelow(title: string, ous: readonly string[]) {
  return useQueries({
    queries: ous.map(ou => ({
      queryKey: ['reach', title, 'below', ou],
      queryFn: () => ask<OuReach[]>('GET', `${address(title)}/ous/${encodeURIComponent(ou)}/below`),
    })),
  })
}

export function useOuTrail(title: string, ou: string) {
  return useQuery({
    queryKey: ['reach', title, 'ou', ou],
    queryFn: () => ask<OuTrail>('GET', `${address(title)}/ous/${encodeURIComponent(ou)}`),
    enabled: title !== '' && ou !== '',
    placeholderData: keepPreviousData,
  })
}
