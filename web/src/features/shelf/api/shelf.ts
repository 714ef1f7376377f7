import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'
import { nextLook } from '../model/offers'

export type Shelf = Api['Shelf']
export type Offer = Api['ShelfOffer']
export type Coming = Api['ShelfComing']
export type Installed = Api['ShelfInstalled']
export type ShelfNotice = Api['ShelfNotice']

/** The shelf of whoever is signed in, on one of their computers; on the one they use where none is named. Looked at again and again. */
export function useShelf(device: string | undefined) {
  return useQuery({
    queryKey: ['shelf', device],
    queryFn: () => ask<Shelf>('GET', withQuery('/api/shelf', { device })),
    refetchInterval: query => nextLook(query.state.data, Date.now()),
    placeholderData: keepPreviousData,
    staleTime: 0,
  })
}

interface Which {
  readonly device: string
  readonly title: string
}

const at = ({ device, title }: Which) => `/api/shelf/on/${encodeURIComponent(device)}/${encodeURIComponent(title)}`

/** What somebody says who takes an offer. */
export type Taking = Api['Taking']

export function useTake() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ taking, ...which }: Which & { taking: Taking }) => ask('PUT', at(which), taking),
    onSettled: () => queries.invalidateQueries({ queryKey: ['shelf'] }),
  })
}

export function useGiveBack() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (which: Which) => ask('DELETE', at(which)),
    onSettled: () => queries.invalidateQueries({ queryKey: ['shelf'] }),
  })
}

/** Has what comes anyway come at once. */
export function useSooner() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ device, title }: Which) =>
      ask('PUT', `/api/shelf/sooner/${encodeURIComponent(device)}/${encodeURIComponent(title)}`),
    onSettled: () => queries.invalidateQueries({ queryKey: ['shelf'] }),
  })
}

interface Saying {
  readonly device: string
  readonly notice: string
  readonly said: Api['Answering']
}

/** Answers what one is asked on a computer. */
export function useAnswerNotice() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ device, notice, said }: Saying) =>
      ask('PUT', `/api/shelf/notices/${encodeURIComponent(device)}/${encodeURIComponent(notice)}`, said),
    onSettled: () => queries.invalidateQueries({ queryKey: ['shelf'] }),
  })
}
