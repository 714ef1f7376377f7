import type { SystemStyleObject } from '@chakra-ui/react'
import type { MouseEvent } from 'react'
import { memo } from 'react'
import type { Column } from './columns'

/** How rows look, said once for the whole list: they are drawn anew at every step of scrolling. So they are plain elements with class names. */
export const ROW_STYLES: SystemStyleObject = {
  '& .row': {
    position: 'absolute',
    left: '0',
    right: '0',
    display: 'grid',
    alignItems: 'center',
    gap: '3.5',
    px: '3.5',
    borderBottomWidth: '1px',
    borderColor: 'line',
    cursor: 'pointer',
    _hover: { bg: 'hover' },
  },
  '& .row[aria-selected=true]': { bg: 'lagoonSoft' },
  '&:focus-visible .row[data-current=true]': { boxShadow: 'inset 3px 0 var(--chakra-colors-lagoon)' },
  '& .cell': { minW: '0', overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& .cell.right': { textAlign: 'right' },
  '& .dim': { color: 'ink2' },
  '& .faint': { color: 'ink3' },
  '& .trouble': { color: 'trouble' },
  '& .beside': { display: 'flex', alignItems: 'center', gap: '2.5', minW: '0' },
  '& .beside > span': { minW: '0', overflow: 'hidden', textOverflow: 'ellipsis' },
  '& input': { display: 'block' },
}

interface Props<Row> {
  id: string
  row: Row | undefined
  columns: readonly Column<Row>[]
  tracks: string
  index: number
  top: number
  height: number
  /** Whether the keyboard is at it. */
  current: boolean
  /** Whether it is chosen; nothing where rows cannot be. */
  chosen: boolean | undefined
  onOpen: (index: number) => void
  onChoose: (index: number, upTo: boolean) => void
}

function Plain<Row>({ id, row, columns, tracks, index, top, height, current, chosen, onOpen, onChoose }: Props<Row>) {
  const pressed = (event: MouseEvent) => {
    const part = event.target instanceof Element ? event.target.closest('a, button, input') : null
    const elsewhere = event.ctrlKey || event.metaKey || event.shiftKey || event.altKey
    if (part === null) {
      onOpen(index)
    } else if (part.classList.contains('opens') && !elsewhere) {
      event.preventDefault()
      onOpen(index)
    }
  }
  return (
    <div
      id={id}
      className="row"
      role="row"
      aria-rowindex={index + 1}
      aria-selected={chosen}
      data-index={index}
      data-current={current}
      onClick={pressed}
      style={{ top, height, gridTemplateColumns: tracks }}
    >
      {chosen !== undefined && (
        <div role="gridcell">
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label="Choose this row"
            checked={chosen}
            disabled={row === undefined}
            onChange={() => undefined}
            onClick={event => onChoose(index, event.shiftKey)}
          />
        </div>
      )}
      {columns.map(column => (
        <div key={column.id} role="gridcell" className={column.right === true ? 'cell right' : 'cell'}>
          {row === undefined ? column.always === true && '…' : column.cell(row)}
        </div>
      ))}
    </div>
  )
}

/**
 * A row of a list, drawn anew only when it, or how it stands, has changed. A link of the class `opens` opens the row, and can be opened in another
 * tab; a link of the router would be drawn anew with each letter by which the list is narrowed.
 */
export const TableRow = memo(Plain) as typeof Plain
