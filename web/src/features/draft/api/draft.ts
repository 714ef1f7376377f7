import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask, withQuery } from '../../../shared/api'

export type Draft = Api['DraftView']
export type Edit = Api['EditView']
export type Rehearsal = Api['RehearsalView']
export type Part = 'gains' | 'loses' | 'removes' | 'contested' | 'settled'

const KEY = ['draft']

export function useDraft() {
  return useQuery({ queryKey: KEY, queryFn: () => ask<Draft>('GET', '/api/draft') })
}

/** Changes the draft and shows what the server makes of it. */
function useDraftChange<T>(change: (input: T) => Promise<Draft>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess: draft => {
      queries.setQueryData(KEY, draft)
      void queries.invalidateQueries({ queryKey: ['reach'] })
      for (const key of [
        'counted',
        'audience',
        'audience-list',
        'audiences',
        'rule',
        'assignment',
        'assignment-trial',
      ]) {
        void queries.invalidateQueries({ queryKey: [key] })
      }
    },
  })
}

/** Has something else assigned to an OU. */
export function usePutEdit() {
  return useDraftChange((wish: Api['OuAssignment']) => ask<Draft>('PUT', '/api/draft/edits', wish))
}

/** A document as it shall be. */
export interface DocumentEdit {
  readonly kind: 'assignment' | 'collection' | 'fence' | 'kit' | 'window'
  readonly id: string
  /** That it was made from; 0 for a new one. */
  readonly revision: number
  readonly document: object
}

function documentAddress({ kind, id }: Pick<DocumentEdit, 'kind' | 'id'>): string {
  return `/api/draft/documents/${kind}/${encodeURIComponent(id)}`
}

/** Puts a document in, or in place of what stands there. */
export function usePutDocument() {
  return useDraftChange(({ revision, document, ...which }: DocumentEdit) =>
    ask<Draft>('PUT', documentAddress(which), { revision, document }),
  )
}

/** An assignment as it shall be, and the same of further titles. */
export interface AssignmentEdit {
  readonly id: string
  readonly revision: number
  readonly document: object
  readonly also?: readonly string[]
}

/** Puts an assignment in, and the same of further titles with it, in one step. */
export function usePutAssignment() {
  return useDraftChange((edit: AssignmentEdit) => ask<Draft>('PUT', '/api/draft/assignments', edit))
}

/** Has a document end. */
export function useRetireDocument() {
  return useDraftChange(({ revision, ...which }: Omit<DocumentEdit, 'document'>) =>
    ask<Draft>('DELETE', `${documentAddress(which)}?revision=${revision}`),
  )
}

export function useDropEdit() {
  return useDraftChange((edit: string) => ask<Draft>('DELETE', `/api/draft/edits/${encodeURIComponent(edit)}`))
}

/** Has an edit count although somebody has changed its document since. */
export function useKeepEdit() {
  return useDraftChange((edit: string) => ask<Draft>('POST', `/api/draft/edits/${encodeURIComponent(edit)}/keeping`))
}

export function useUndo() {
  return useDraftChange<void>(() => ask<Draft>('POST', '/api/draft/undo'))
}

export function useRedo() {
  return useDraftChange<void>(() => ask<Draft>('POST', '/api/draft/redo'))
}

export function useClearDraft() {
  return useDraftChange<void>(() => ask<Draft>('DELETE', '/api/draft'))
}

/** `onPublished` is told even when the window that asked has closed by then. */
export function usePublish(onPublished: (change: number) => void) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (publication: Api['Publication']) =>
      ask<Api['Published']>('POST', '/api/draft/publication', publication),
    onSuccess: published => onPublished(published.change),
    onSettled: () => queries.invalidateQueries(),
  })
}

/** The devices that a figure of the rehearsal counts. */
export function useCounted(part: Part, limit: number) {
  return useQuery({
    queryKey: ['counted', part, limit],
    queryFn: () => ask<Api['CountedDevices']>('GET', withQuery(`/api/draft/rehearsal/${part}`, { limit })),
    placeholderData: keepPreviousData,
  })
}
