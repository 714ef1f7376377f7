import type { ReactNode } from 'react'

/** A column of a list. */
export interface Column<Row> {
  readonly id: string
  readonly head: string
  /** A track of the grid, such as `minmax(180px, 1fr)`. */
  readonly width: string
  readonly cell: (row: Row) => ReactNode
  /** Whether figures stand at its right edge. */
  readonly right?: boolean
  /** Whether the list can be put in its order. */
  readonly sortable?: boolean
  /** Whether it cannot be hidden. */
  readonly always?: boolean
}

/** What a list is put in the order of. */
export interface Order {
  readonly column: string
  readonly descending: boolean
}

/** An order as an address has it: `last-seen`, or `-last-seen` for the other way round. */
export function orderText(order: Order | undefined): string | undefined {
  return order === undefined ? undefined : `${order.descending ? '-' : ''}${order.column}`
}

/** The order that an address says; nothing for a column that there is not. */
export function orderOf(text: string | undefined, columns: readonly string[]): Order | undefined {
  const descending = text?.startsWith('-') === true
  const column = descending ? text.slice(1) : text
  return column === undefined || !columns.includes(column) ? undefined : { column, descending }
}

/** The next order when a head is pressed: up, down, and then as it is by itself. */
export function nextOrder(before: Order | undefined, column: string): Order | undefined {
  if (before?.column !== column) {
    return { column, descending: false }
  }
  return before.descending ? undefined : { column, descending: true }
}

const KEPT = 'rivo.columns.'

/** The columns of a list that somebody has hidden in this browser; those that there are no more are forgotten. */
export function keptHidden(list: string, columns: readonly string[]): readonly string[] {
  const kept = (localStorage.getItem(KEPT + list) ?? '').split(' ')
  return columns.filter(column => kept.includes(column))
}

export function keepHidden(list: string, hidden: readonly string[]): void {
  if (hidden.length === 0) {
    localStorage.removeItem(KEPT + list)
  } else {
    localStorage.setItem(KEPT + list, hidden.join(' '))
  }
}

/**
 * Which rows a list has chosen after a row was pressed: with Shift all from the last one to this, else this one more or less. Costs a step for
 * each row between them.
 *
 * @param idAt the id of a row; nothing while it has not been loaded
 */
export function chosenAfter(
  before: ReadonlySet<string>,
  idAt: (index: number) => string | undefined,
  from: number | undefined,
  to: number,
): ReadonlySet<string> {
  const next = new Set(before)
  const id = idAt(to)
  if (id === undefined) {
    return before
  }
  if (from === undefined) {
    if (!next.delete(id)) {
      next.add(id)
    }
    return next
  }
  for (let i = Math.min(from, to); i <= Math.max(from, to); i += 1) {
    const one = idAt(i)
    if (one !== undefined) {
      next.add(one)
    }
  }
  return next
}
