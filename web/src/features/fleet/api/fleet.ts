import { keepPreviousData, useMutation, useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type DeviceRow = Api['DeviceRow']
export type DeviceRows = Api['DeviceRows']
export type Device = Api['DeviceView']
export type TitleLine = Api['DeviceTitle']
export type TitleWhy = Api['DeviceTitleWhy']
export type Counts = Api['FleetCounts']

/** Which devices the list shows. */
export interface Filter {
  readonly q: string | undefined
  readonly ou: string | undefined
  readonly title: string | undefined
  readonly outcome: string | undefined
  readonly state: string | undefined
}

export const PAGE = 100
const LIVE_MS = 2000

export function useFleetCounts() {
  return useQuery({ queryKey: ['fleet'], queryFn: () => ask<Counts>('GET', '/api/fleet'), staleTime: LIVE_MS })
}

/** The pages of the list that are looked at, by their numbers from 0 on. */
export function useDevicePages(filter: Filter, pages: readonly number[]) {
  return useQueries({
    queries: pages.map(page => ({
      queryKey: ['devices', filter, page],
      queryFn: () => ask<DeviceRows>('GET', withQuery('/api/devices', { ...filter, offset: page * PAGE, limit: PAGE })),
      placeholderData: keepPreviousData,
    })),
  })
}

export function useDevice(id: string) {
  return useQuery({
    queryKey: ['device', id],
    queryFn: () => ask<Device>('GET', `/api/devices/${encodeURIComponent(id)}`),
    placeholderData: keepPreviousData,
  })
}

export function useTitleWhy(device: string, title: string | undefined) {
  return useQuery({
    queryKey: ['device', device, title],
    queryFn: () =>
      ask<TitleWhy>('GET', `/api/devices/${encodeURIComponent(device)}/titles/${encodeURIComponent(title ?? '')}`),
    enabled: title !== undefined,
    placeholderData: keepPreviousData,
  })
}

export function useNewToken(device: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => ask<Api['NewToken']>('POST', `/api/devices/${encodeURIComponent(device)}/token`),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['device', device] }),
  })
}

export function useRevoke(device: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => ask('DELETE', `/api/devices/${encodeURIComponent(device)}/enrolment`),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['device', device] }),
  })
}
