import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type Reach = Api['ReachView']
export type OuReach = Api['OuReach']
export type OuTrail = Api['OuTrail']
export type Counts = Api['OutcomeCounts']
export type Rung = Api['RungView']
export type TitleLine = Api['TitleLine']

export function useTitles() {
  return useQuery({ queryKey: ['titles'], queryFn: () => ask<TitleLine[]>('GET', '/api/titles') })
}

export function useReach(title: string) {
  return useQuery({
    queryKey: ['reach', title],
    queryFn: () => ask<Reach>('GET', `/api/reach/${encodeURIComponent(title)}`),
    enabled: title !== '',
    placeholderData: keepPreviousData,
  })
}

export function useOuTrail(title: string, ou: string) {
  return useQuery({
    queryKey: ['reach', title, ou],
    queryFn: () => ask<OuTrail>('GET', `/api/reach/${encodeURIComponent(title)}/ous/${encodeURIComponent(ou)}`),
    enabled: title !== '' && ou !== '',
    placeholderData: keepPreviousData,
  })
}
