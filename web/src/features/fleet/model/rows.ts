import type { Api } from '../../../shared/api'

type DeviceRow = Api['DeviceRow']
type DeviceRows = Api['DeviceRows']

/** Those of the rows on the screen that may be old, by what has changed. */
export function changedRows(
  shown: readonly string[],
  changed: { readonly devices: ReadonlySet<string>; readonly many: boolean },
): readonly string[] {
  return changed.many ? shown : shown.filter(id => changed.devices.has(id))
}

/** A page with newer rows in their places; the very same page where it has none of them. */
export function withRows(page: DeviceRows, rows: readonly DeviceRow[]): DeviceRows {
  const newer = new Map(rows.map(row => [row.id, row]))
  return page.rows.some(row => newer.has(row.id))
    ? { ...page, rows: page.rows.map(row => newer.get(row.id) ?? row) }
    : page
}
