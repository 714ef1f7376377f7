import { isRefusal } from './api'

/** What is known of a query, as far as it matters here. */
interface Asked {
  readonly isError: boolean
  readonly error: unknown
  readonly data: unknown
}

const NOT_FOUND = 404
const GONE = 410

/**
 * Why a query has nothing to show. What was loaded stays on the screen when asking again fails, unless the answer is that it no longer
 * exists.
 */
export function failure(asked: Asked): unknown {
  if (!asked.isError) {
    return undefined
  }
  const isGone = isRefusal(asked.error) && (asked.error.status === NOT_FOUND || asked.error.status === GONE)
  return asked.data === undefined || isGone ? asked.error : undefined
}
