import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type WindowLine = Api['WindowLine']
export type MaintenanceWindow = Api['WindowDocument']

export function useWindows() {
  return useQuery({ queryKey: ['windows'], queryFn: () => ask<WindowLine[]>('GET', '/api/windows') })
}

function address(id: string): string {
  return `/api/windows/${encodeURIComponent(id)}`
}

export function usePutWindow() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (window: MaintenanceWindow) => ask<void>('PUT', address(window.id), window),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['windows'] }),
  })
}

export function useDeleteWindow() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (id: string) => ask<void>('DELETE', address(id)),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['windows'] }),
  })
}

export type QuietHours = Api['QuietHoursView']

/** When people are not told what does not count down; with nothing in it where they always are. */
export function useQuietHours() {
  return useQuery({ queryKey: ['windows', 'quiet'], queryFn: () => ask<QuietHours>('GET', '/api/quiet-hours') })
}

export function usePutQuietHours() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (hours: Required<QuietHours>) => ask<void>('PUT', '/api/quiet-hours', hours),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['windows'] }),
  })
}

export function useDeleteQuietHours() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => ask<void>('DELETE', '/api/quiet-hours'),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['windows'] }),
  })
}
