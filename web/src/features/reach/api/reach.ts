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

/** Which part of the map is shown. */
export interface Shown {
  /** The OU that it begins with; the root when empty. */
  readonly top: string
  /** The OUs of which all are shown. */
  readonly open: readonly string[]
  /** The audience that is lit up. */
  readonly lit: string | undefined
}

function queryOf({ top, open, lit }: Shown): URLSearchParams {
  const query = new URLSearchParams(open.map(ou => ['open', ou]))
  if (top !== '') {
    query.set('in', top)
  }
  if (lit !== undefined) {
    query.set('lit', lit)
  }
  return query
}

/** A part of the map. */
export function useReach(title: string, shown: Shown) {
  return useQuery({
    queryKey: ['reach', title, 'map', shown],
    queryFn: () => ask<Reach>('GET', `${address(title)}?${queryOf(shown)}`),
    enabled: title !== '',
    placeholderData: keepPreviousData,
  })
}

/**
 * The same with an assignment that is only being written.
 *
 * @param written as the server takes it; nothing where none is written, or it is not whole yet
 */
export function useWrittenReach(title: string, shown: Shown, written: object | undefined) {
  return useQuery({
    queryKey: ['reach', title, 'written', shown, written],
    queryFn: () => ask<Reach>('POST', `${address(title)}/written?${queryOf(shown)}`, written),
    enabled: written !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
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

/** With the title that it is of, as that of before stays until the next has come. */
export function useOuTrail(title: string, ou: string) {
  return useQuery({
    queryKey: ['reach', title, 'ou', ou],
    queryFn: async () => ({
      title,
      trail: await ask<OuTrail>('GET', `${address(title)}/ous/${encodeURIComponent(ou)}`),
    }),
    enabled: title !== '' && ou !== '',
    placeholderData: keepPreviousData,
  })
}
