import type { RequestRow } from '../api/requests'

/** How a request stands, in words. */
export function requestWords(row: RequestRow, day: (instant: string) => string): string {
  const { answer } = row
  switch (row.state) {
    case 'asked':
      return 'waits for an answer'
    case 'refused':
      return `refused by ${answer?.by ?? 'somebody'}: “${answer?.words ?? ''}”`
    case 'taken':
      return answer === undefined
        ? 'taken'
        : `agreed by ${answer.by}${answer.until === undefined ? '' : ` until ${day(answer.until)}`}${answer.words === '' ? '' : `: “${answer.words}”`}`
    case 'sooner':
      return 'wanted before its deadline'
    case 'given-back':
      return 'given back; being removed'
  }
}

/** The end of a day in the browser's time zone, as an instant; nothing for what is no day. */
export function endOfDay(day: string): string | undefined {
  const [, year, month, date] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(day) ?? []
  if (year === undefined) {
    return undefined
  }
  const end = new Date(Number(year), Number(month) - 1, Number(date), 23, 59, 59)
  return end.getMonth() === Number(month) - 1 ? end.toISOString() : undefined
}
