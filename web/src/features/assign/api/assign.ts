import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'
import type { Assignment } from '../model/sheet'

export type Tried = Api['AssignmentTried']
export type TriedPart = Api['TriedFigure']['part']
export type Counted = Api['CountedDevices']

/** An assignment with the revision that it is made from; 0 for a new one. */
export interface Written {
  readonly assignment: Assignment
  readonly revision: number
  /** Further titles and kits that are assigned alike: `title:ID`, `kit:ID`. */
  readonly also?: readonly string[]
}

/** What is written, as the server takes it. */
export type WrittenBody = ReturnType<typeof bodyOf>

export function bodyOf({ assignment, revision, also = [] }: Written) {
  return { id: assignment.id, revision, document: assignment, ...(also.length > 0 && { also }) }
}

/** What it alone would do, on top of the rest of the draft. */
export function useAssignmentTrial(written: Written | undefined) {
  return useQuery({
    queryKey: ['assignment-trial', written],
    queryFn: () => ask<Tried>('POST', '/api/assignments/trial', written === undefined ? {} : bodyOf(written)),
    enabled: written !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  })
}

/** The devices that a figure of it counts. */
export function useTriedDevices(written: Written, part: string, limit: number) {
  return useQuery({
    queryKey: ['assignment-trial', written, part, limit],
    queryFn: () => ask<Counted>('POST', withQuery(`/api/assignments/trial/${part}`, { limit }), bodyOf(written)),
    placeholderData: keepPreviousData,
  })
}

/** An assignment as it is edited: as the draft has it, else as it is published. */
export function useAssignment(id: string | undefined) {
  return useQuery({
    queryKey: ['assignment', id],
    queryFn: () =>
      ask<{ revision: number; document: Assignment }>(
        'GET',
        `/api/draft/documents/assignment/${encodeURIComponent(id ?? '')}`,
      ),
    enabled: id !== undefined,
  })
}

export type WavesView = Api['WavesView']

/** How far the waves of a published assignment have come, and what comes next. */
export function useWaves(id: string | undefined) {
  return useQuery({
    queryKey: ['waves', id],
    queryFn: () => ask<WavesView>('GET', `/api/assignments/${encodeURIComponent(id ?? '')}/waves`),
    enabled: id !== undefined,
  })
}
