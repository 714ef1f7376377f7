import { stretch } from '../../../shared/format'
import type { MaintenanceWindow } from '../api/windows'

export type Day = MaintenanceWindow['days'][number]

export const DAYS: readonly (readonly [Day, string])[] = [
  ['MONDAY', 'Mon'],
  ['TUESDAY', 'Tue'],
  ['WEDNESDAY', 'Wed'],
  ['THURSDAY', 'Thu'],
  ['FRIDAY', 'Fri'],
  ['SATURDAY', 'Sat'],
  ['SUNDAY', 'Sun'],
]

/** "Tue, Thu at 02:00 for 45 min". */
export function openWords(window: Pick<MaintenanceWindow, 'days' | 'opens' | 'minutes'>): string {
  const days =
    window.days.length === DAYS.length
      ? 'every day'
      : DAYS.filter(([day]) => window.days.includes(day))
          .map(([, words]) => words)
          .join(', ')
  return `${days} at ${window.opens} for ${stretch(window.minutes * 60)}`
}
