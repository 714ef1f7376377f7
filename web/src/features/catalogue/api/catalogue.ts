import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type TitleLine = Api['TitleLine']
export type TitlePageData = Api['TitlePage']
export type TitleRecord = Api['TitleRecord']
export type ReleaseRecord = Api['ReleaseRecord']
export type VariantRecord = Api['VariantRecord']
export type ReleaseStanding = Api['ReleaseStanding']
export type Step = Api['Step']
export type Choice = Api['ChoiceRecord']
export type Fixed = Api['FixedLine']
export type PresenceCheck = Api['Check']
export type Look = Api['Look']
export type Relation = Api['Relation']
export type Effects = Api['Effects']
export type Tried = Api['Tried']

/** The three programs of a variant. */
export type Program = 'install' | 'remove' | 'repair'

export interface Change {
  readonly record: TitleRecord
  readonly revision: number
  readonly why?: string
}

export function useTitleList() {
  return useQuery({
    queryKey: ['titles'],
    queryFn: () => ask<TitleLine[]>('GET', '/api/titles'),
  })
}

/** What titles are called, by their ids. */
export function useTitleNames(): Readonly<Record<string, string>> {
  const titles = useTitleList()
  return Object.fromEntries((titles.data ?? []).map(title => [title.id, title.name]))
}

export function useTitle(id: string) {
  return useQuery({
    queryKey: ['title', id],
    queryFn: () => ask<TitlePageData>('GET', address(id)),
  })
}

/** The release whose choices one fixes: the newest that is offered, else the newest; none where nothing may be chosen. */
export function useChoosable(id: string): ReleaseRecord | undefined {
  const page = useQuery({
    queryKey: ['title', id],
    queryFn: () => ask<TitlePageData>('GET', address(id)),
    enabled: id !== '',
  })
  const releases = page.data?.record.releases ?? []
  const versions = (page.data?.releases ?? []).map(r => r.version)
  const sorted = versions.flatMap(version => releases.find(r => r.version === version) ?? [])
  const leading = sorted.find(r => r.offered) ?? sorted[0]
  return leading === undefined || leading.choices.length === 0 ? undefined : leading
}

/** The versions that are offered of a title, the newest first. */
export function useVersions(id: string): readonly string[] {
  const page = useQuery({
    queryKey: ['title', id],
    queryFn: () => ask<TitlePageData>('GET', address(id)),
    enabled: id !== '',
  })
  const offered = new Set((page.data?.record.releases ?? []).filter(r => r.offered).map(r => r.version))
  return (page.data?.releases ?? []).map(r => r.version).filter(version => offered.has(version))
}

/** Saves a title; one that somebody has changed since is refused, and nothing is lost. */
export function useSaveTitle(onSaved: (id: string) => void = () => undefined) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (change: Change) => ask<Api['Saved']>('PUT', address(change.record.id), change),
    onSuccess: async (_, change) => {
      await queries.invalidateQueries({ queryKey: ['title', change.record.id] })
      await queries.invalidateQueries({ queryKey: ['titles'] })
      onSaved(change.record.id)
    },
  })
}

/** What a change would do to the fleet, before it is saved. @param change as JSON */
export function useEffects(where: string, change: string | undefined) {
  return useQuery({
    queryKey: ['effects', where, change],
    queryFn: () => ask<Effects>('POST', `${where}/rehearsal`, JSON.parse(change ?? '{}')),
    enabled: change !== undefined,
  })
}

/** What the steps would do on a device. */
export function useTrial(title: string, of: { version: string; variant: string; program: Program; device: string }) {
  // Named one by one: whoever asks may hold more than is asked for.
  const { version, variant, program, device } = of
  const asked = { version, variant, program, device }
  return useQuery({
    queryKey: ['trial', title, asked],
    queryFn: () => ask<Tried>('GET', withQuery(`${address(title)}/trial`, asked)),
    enabled: device !== '',
    retry: false,
  })
}

/** Where a title is asked for. */
export function address(title: string): string {
  return `/api/titles/${encodeURIComponent(title)}`
}
