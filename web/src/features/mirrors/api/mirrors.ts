import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Api } from '../../../shared/api'
import { ask } from '../../../shared/api'

export type Mirrors = Api['MirrorsView']
export type MirrorLine = Api['MirrorLine']
export type Mirror = Api['Mirror']
export type MirrorContent = Api['MirrorContent']

/** Where a mirror is asked for. */
export function mirrorAddress(id: string): string {
  return `/api/mirrors/${encodeURIComponent(id)}`
}

export function useMirrors() {
  return useQuery({
    queryKey: ['mirrors'],
    queryFn: () => ask<Mirrors>('GET', '/api/mirrors'),
  })
}

export function useContents(mirror: string) {
  return useQuery({
    queryKey: ['mirrors', mirror],
    queryFn: () => ask<MirrorContent[]>('GET', `${mirrorAddress(mirror)}/contents`),
  })
}

/** Something that is done to the mirrors, after which they are asked for anew. */
function useAct<T>(act: (input: T) => Promise<void>) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: act,
    onSettled: () => queries.invalidateQueries({ queryKey: ['mirrors'] }),
  })
}

export function usePutMirror() {
  return useAct((mirror: Mirror) => ask<void>('PUT', mirrorAddress(mirror.id), mirror))
}

export function useDeleteMirror() {
  return useAct((id: string) => ask<void>('DELETE', mirrorAddress(id)))
}

export function useLook() {
  return useAct((id: string) => ask<void>('POST', `${mirrorAddress(id)}/look`))
}

/** Has a mirror fetch content: these, or all that it lacks. */
export function useCopy() {
  return useAct(({ id, sha256 }: { id: string; sha256?: string[] }) =>
    ask<void>('POST', `${mirrorAddress(id)}/copies`, sha256 === undefined ? {} : { sha256 }),
  )
}

export function useCancelCopies() {
  return useAct((id: string) => ask<void>('DELETE', `${mirrorAddress(id)}/copies`))
}
