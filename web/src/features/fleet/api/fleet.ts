import { keepPreviousData, useMutation, useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'
import { useChangedDevices } from '../../../shared/live'
import { changedRows, withRows } from '../model/rows'

export type DeviceRow = Api['DeviceRow']
export type DeviceRows = Api['DeviceRows']
export type Device = Api['DeviceView']
export type TitleLine = Api['DeviceTitle']
export type TitleWhy = Api['DeviceTitleWhy']
export type Counts = Api['FleetCounts']

/** Which devices the list shows, and in which order. */
export interface Filter {
  readonly q: string
  readonly ou: string | undefined
  readonly title: string | undefined
  readonly outcome: string | undefined
  readonly state: string | undefined
  /** With a title: in which state of it. */
  readonly stands: string | undefined
  readonly order: string | undefined
}

export const PAGE = 100
/** How long what changes is gathered before its rows are asked for. */
const ROWS_MS = 1000
/** How often, at most, the list itself is put together anew while devices report: which devices it holds, and in which order. */
const LIST_MS = 30_000

export function useFleetCounts() {
  return useQuery({ queryKey: ['fleet'], queryFn: () => ask<Counts>('GET', '/api/fleet') })
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

/** Where the list is as CSV. */
export function csvAddress(filter: Filter): string {
  return withQuery('/api/devices/csv', { ...filter })
}

/**
 * Keeps the rows on the screen up to date one by one: those of devices that have said something are asked for, and put in their place. The
 * list keeps its order meanwhile.
 */
export function useLiveRows(shown: readonly string[]): void {
  const queries = useQueryClient()
  const waiting = useRef({ devices: new Set<string>(), many: false })
  const old = useRef<number | undefined>(undefined)
  useChangedDevices(changed => {
    changed.devices.forEach(device => waiting.current.devices.add(device))
    waiting.current.many ||= changed.manyDevices
    old.current ??= window.setTimeout(() => {
      old.current = undefined
      void queries.invalidateQueries({ queryKey: ['devices'] })
    }, LIST_MS)
  })
  useEffect(() => () => window.clearTimeout(old.current), [])
  const latest = useRef(shown)
  useEffect(() => {
    latest.current = shown
  })
  useEffect(() => {
    const renew = async () => {
      const id = changedRows(latest.current, waiting.current)
      waiting.current = { devices: new Set(), many: false }
      if (id.length > 0) {
        const query = new URLSearchParams(id.map(one => ['id', one]))
        const rows = await ask<DeviceRow[]>('GET', `/api/devices/rows?${query}`)
        queries.setQueriesData<DeviceRows>({ queryKey: ['devices'] }, page => page && withRows(page, rows))
      }
    }
    // What cannot be had now is asked for with the list.
    const timer = window.setInterval(() => void renew().catch(() => undefined), ROWS_MS)
    return () => window.clearInterval(timer)
  }, [queries])
}

export function useDevice(id: string) {
  return useQuery({
    queryKey: ['device', id],
    queryFn: () => ask<Device>('GET', `/api/devices/${encodeURIComponent(id)}`),
    placeholderData: keepPreviousData,
  })
}

export function useTitleWhy(device: string, title: string | undefined, person: string | undefined) {
  return useQuery({
    queryKey: ['device', device, title, person],
    queryFn: () =>
      ask<TitleWhy>(
        'GET',
        withQuery(`/api/devices/${encodeURIComponent(device)}/titles/${encodeURIComponent(title ?? '')}`, { person }),
      ),
    enabled: title !== undefined,
    placeholderData: keepPreviousData,
  })
}

/** The groups, collections, people and software of a device. */
export function useBelonging(device: string, wanted: boolean) {
  return useQuery({
    queryKey: ['device', device, 'belonging'],
    queryFn: () => ask<Api['DeviceBelonging']>('GET', `/api/devices/${encodeURIComponent(device)}/belonging`),
    enabled: wanted,
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
