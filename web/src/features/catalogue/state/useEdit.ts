import { sentence } from '../../../shared/api'
import type { Change, TitlePageData, TitleRecord } from '../api/catalogue'
import { useSaveTitle } from '../api/catalogue'

/** Makes one record of another. Kept as what to do, so that it can be done again to a newer version. */
export type Edit = (record: TitleRecord) => TitleRecord

/** How an edit is saved. */
export interface Saving {
  readonly why?: string | undefined
  /** The revision that was looked at while it was written; without one, the newest. */
  readonly revision?: number | undefined
  readonly onRefused?: () => void
}

export interface Editing {
  /** Saves; says so when it is on the server's disk. */
  readonly save: (edit: Edit, onSaved: () => void, how?: Saving) => void
  /** What an edit comes to, made to the title as it stands. */
  readonly change: (edit: Edit) => Change
  /** That of the title as it stands. */
  readonly revision: number
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
    save: (edit, onSaved, how = {}) =>
      saving.mutate(
        {
          record: edit(page.record),
          revision: how.revision ?? page.revision,
          ...(how.why !== undefined && { why: how.why }),
        },
        {
          onSuccess: onSaved,
          onError: () => {
            refetch()
            how.onRefused?.()
          },
        },
      ),
    change: edit => ({ record: edit(page.record), revision: page.revision }),
    revision: page.revision,
    pending: saving.isPending,
    refusal: saving.isError ? sentence(saving.error) : undefined,
  }
}
