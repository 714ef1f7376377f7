import { some } from '../../../shared/format'
import type { TitleRecord } from '../api/catalogue'

/** Where so many have a title: on devices, or in people's profiles. */
export function whereWords(scope: TitleRecord['scope'], n: number): string {
  return scope === 'user'
    ? `in ${n === 0 ? 'no profile' : some(n, 'profile')}`
    : `on ${n === 0 ? 'no device' : some(n, 'device')}`
}
