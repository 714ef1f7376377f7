import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'
import type { AudienceKind } from '../model/kinds'

export type Audience = Api['AudienceLine']
export type AudiencesFound = Api['AudiencesFound']

/** What software can be assigned to, by a few letters of its name. */
export function useAudiences(words: string, kinds: readonly AudienceKind[]) {
  return useQuery({
    queryKey: ['audiences', words, kinds],
    queryFn: () =>
      ask<AudiencesFound>(
        'GET',
        `/api/audiences?${new URLSearchParams([['q', words], ...kinds.map(kind => ['kind', kind])])}`,
      ),
    placeholderData: keepPreviousData,
  })
}

export type AudienceList = Api['AudienceList']
export type AudienceData = Api['AudienceView']
export type Member = Api['MemberLine']
export type Received = Api['Received']
export type Person = Api['PersonView']
export type Collection = Api['CollectionDocument']
export type HostsFound = Api['HostsFound']

export function useAudienceList(words: string) {
  return useQuery({
    queryKey: ['audience-list', words],
    queryFn: () => ask<AudienceList>('GET', withQuery('/api/audience-list', { q: words })),
    placeholderData: keepPreviousData,
  })
}

export function useAudience(target: string | undefined) {
  return useQuery({
    queryKey: ['audience', target],
    queryFn: () => ask<AudienceData>('GET', withQuery('/api/audience', { target })),
    enabled: target !== undefined,
  })
}

/** Whom it holds: a page of its devices or of its people. */
export function useMembers(target: string, of: 'devices' | 'people', limit: number) {
  return useQuery({
    queryKey: ['audience', target, of, limit],
    queryFn: () => ask<Api['Members']>('GET', withQuery(`/api/audience/${of}`, { target, limit })),
    placeholderData: keepPreviousData,
  })
}

/** Whether a device or a person is in it, and how. */
export function useMembership(target: string, of: string | undefined) {
  return useQuery({
    queryKey: ['audience', target, 'membership', of],
    queryFn: () => ask<Api['Membership']>('GET', withQuery('/api/audience/membership', { target, of })),
    enabled: of !== undefined,
    placeholderData: keepPreviousData,
  })
}

/** What its devices receive of every title. */
export function useReceived(target: string) {
  return useQuery({
    queryKey: ['audience', target, 'titles'],
    queryFn: () => ask<Received[]>('GET', withQuery('/api/audience/titles', { target })),
  })
}

/** Who came and went lately. */
export function useMembershipChanges(target: string) {
  return useQuery({
    queryKey: ['audience', target, 'changes'],
    queryFn: () => ask<Api['Changes']>('GET', withQuery('/api/audience/changes', { target })),
  })
}

export function usePerson(id: string) {
  return useQuery({
    queryKey: ['person', id],
    queryFn: () => ask<Person>('GET', `/api/people/${encodeURIComponent(id)}`),
  })
}

/** Finds the devices that a pasted list names. */
export function useHosts() {
  return useMutation({
    mutationFn: (text: string) => ask<HostsFound>('POST', '/api/audience/hosts', { text }),
  })
}
