import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type Kit = Api['KitDocument']
export type KitPageData = Api['KitPage']
export type KitLine = Api['KitLine']

export interface KitChange {
  readonly kit: Kit
  readonly revision: number
  readonly why?: string | undefined
}

/** Where a kit is asked for. */
export function kitAddress(id: string): string {
  return `/api/kits/${encodeURIComponent(id)}`
}

export function useKits() {
  return useQuery({ queryKey: ['kits'], queryFn: () => ask<KitLine[]>('GET', '/api/kits') })
}

export function useKit(id: string) {
  return useQuery({ queryKey: ['kits', id], queryFn: () => ask<KitPageData>('GET', kitAddress(id)) })
}

/** Saves a kit; one that somebody has changed since is refused, and nothing is lost. */
export function useSaveKit() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (change: KitChange) => ask<Api['Saved']>('PUT', kitAddress(change.kit.id), change),
    onSettled: () => queries.invalidateQueries({ queryKey: ['kits'] }),
  })
}

export function useDeleteKit() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (id: string) => ask<void>('DELETE', kitAddress(id)),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['kits'] }),
  })
}
