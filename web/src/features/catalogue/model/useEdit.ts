import { sentence } from '../../../shared/api'
import type { TitlePageData, TitleRecord } from '../api/catalogue'
import { useSaveTitle } from '../api/catalogue'

/** Makes one record of another. Kept as what to do, so that it can be done again to a newer version. */
export type Edit = (record: TitleRecord) => TitleRecord

export interface Editing {
  /** Saves; says so when it is on the server's disk. */
  readonly save: (edit: Edit, onSaved: () => void, why?: string) => void
  readonly pending: boolean
  /** Why the last one was not saved. */
  readonly refusal: string | undefined
}

/**
 * Edits of the title on the page. When somebody has changed it since, that is said, the newest version is fetched, and
 * the same edit saved again is made to that one: neither person's work is lost.
 */
export function useEdit(page: TitlePageData, refetch: () => void): Editing {
  const saving = useSaveTitle()
  return {
    save: (edit, onSaved, why) =>
      saving.mutate(
        { record: edit(page.record), revision: page.revision, ...(why !== undefined && { why }) },
        { onSuccess: onSaved, onError: refetch },
      ),
    pending: saving.isPending,
    refusal: saving.isError ? sentence(saving.error) : undefined,
  }
}
