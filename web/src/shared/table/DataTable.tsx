import { Box, Flex } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import type { KeyboardEvent, ReactNode } from 'react'
import { useEffect, useId, useMemo, useRef, useState } from 'react'
import { Panel } from '../ui/Panel'
import { PlainStyles } from '../ui/PlainStyles'
import { useSteady } from '../useSteady'
import type { Column, Order } from './columns'
import { chosenAfter, keepHidden, keptHidden } from './columns'
import { TableHead } from './TableHead'
import { ROW_STYLES, TableRow } from './TableRow'

interface Props<Row> {
  /** What the rows are, for those who do not see: "Devices". */
  label: string
  /** Under which hidden columns are kept. */
  name: string
  columns: readonly Column<Row>[]
  /** How many rows there are; nothing while that is not known. */
  total: number | undefined
  /** A row, from 0 on; nothing while it has not been loaded. */
  rowAt: (index: number) => Row | undefined
  idOf: (row: Row) => string
  /** Told which rows are looked at, both inclusive. */
  onLook: (first: number, last: number) => void
  order: Order | undefined
  onOrder: (column: string) => void
  onOpen: (row: Row) => void
  /** What can be done with the rows that are chosen; without it none can be. */
  chosen?: {
    readonly ids: ReadonlySet<string>
    readonly set: (ids: ReadonlySet<string>) => void
    readonly acts: ReactNode
  }
  /** Where the whole list is as CSV. */
  csv?: string
  /** How many, in words: "6,012 devices". */
  count: string
  /** How wide it has to be at least; where the screen is narrower, it scrolls sideways. */
  width?: string
  /** What stands there when there is no row. */
  empty: ReactNode
}

const ROW = 36
const GRID_STYLES = { ...ROW_STYLES, '&:focus-visible': { outlineOffset: '-2px' } }

/**
 * A list of any length. Only the rows on the screen are drawn, and only they are asked for. The arrow keys, Page Up and Down, Home and End
 * walk it; Enter opens a row, Space chooses it, Shift chooses all up to it, Escape lets go of what is chosen.
 */
export function DataTable<Row>(props: Props<Row>) {
  const { width = '0', total = 0, rowAt, idOf, onLook, chosen } = props
  const frame = useRef<HTMLDivElement>(null)
  const [at, setAt] = useState(0)
  const anchor = useRef<number | undefined>(undefined)
  const prefix = useId()
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 10,
  })
  const items = virtual.getVirtualItems()
  const first = items[0]?.index ?? 0
  const last = items.at(-1)?.index ?? 0
  useEffect(() => onLook(first, last), [onLook, first, last])
  const shown = useShownColumns(props)
  const current = Math.min(at, Math.max(0, total - 1))
  const idAt = (index: number) => {
    const row = rowAt(index)
    return row === undefined ? undefined : idOf(row)
  }
  const go = (to: number, choosing: boolean) => {
    const next = Math.min(total - 1, Math.max(0, to))
    if (choosing && chosen !== undefined) {
      anchor.current ??= current
      chosen.set(chosenAfter(chosen.ids, idAt, anchor.current, next))
    } else {
      anchor.current = undefined
    }
    setAt(next)
    virtual.scrollToIndex(next)
  }
  const choose = (index: number, upTo: boolean) => {
    chosen?.set(chosenAfter(chosen.ids, idAt, upTo ? (anchor.current ?? current) : undefined, index))
    anchor.current = index
    setAt(index)
  }
  const open = (index: number) => {
    const row = rowAt(index)
    if (row !== undefined) {
      props.onOpen(row)
    }
  }
  const pressed = (event: KeyboardEvent) => {
    const page = Math.max(1, Math.floor((frame.current?.clientHeight ?? 0) / ROW) - 1)
    const steps: Record<string, number> = {
      ArrowDown: 1,
      ArrowUp: -1,
      PageDown: page,
      PageUp: -page,
      Home: -total,
      End: total,
    }
    const step = steps[event.key]
    if (event.target !== event.currentTarget || event.ctrlKey || event.altKey || event.metaKey) {
      return
    }
    if (step !== undefined) {
      go(current + step, event.shiftKey)
    } else if (event.key === 'Enter') {
      open(current)
    } else if (event.key === ' ' && chosen !== undefined) {
      choose(current, event.shiftKey)
    } else if (event.key === 'Escape' && chosen !== undefined && chosen.ids.size > 0) {
      chosen.set(new Set())
    } else {
      return
    }
    event.preventDefault()
  }
  const tracks = [...(chosen === undefined ? [] : ['18px']), ...shown.columns.map(column => column.width)].join(' ')
  const openRow = useSteady(open)
  const chooseRow = useSteady(choose)
  if (props.total === 0) {
    return <Panel flex="1">{props.empty}</Panel>
  }
  return (
    <Panel flex="1" minH="280px" overflowX="auto" overflowY="hidden">
      <PlainStyles within="rows" styles={GRID_STYLES} />
      <Flex direction="column" h="100%" minW={width}>
        <TableHead props={props} shown={shown} tracks={tracks} />
        <Box
          ref={frame}
          flex="1"
          overflowY="auto"
          role="grid"
          aria-label={props.label}
          aria-rowcount={total}
          aria-multiselectable={chosen !== undefined}
          tabIndex={0}
          onKeyDown={pressed}
          aria-activedescendant={items.some(item => item.index === current) ? `${prefix}-${current}` : undefined}
          className="rows"
          data-list=""
        >
          <Box position="relative" role="presentation" style={{ height: virtual.getTotalSize() }}>
            {items.map(item => {
              const row = rowAt(item.index)
              const id = row === undefined ? undefined : idOf(row)
              return (
                <TableRow
                  key={id ?? item.index}
                  id={`${prefix}-${item.index}`}
                  row={row}
                  columns={shown.columns}
                  tracks={tracks}
                  index={item.index}
                  top={item.start}
                  height={ROW}
                  current={item.index === current}
                  chosen={chosen === undefined ? undefined : id !== undefined && chosen.ids.has(id)}
                  onOpen={openRow}
                  onChoose={chooseRow}
                />
              )
            })}
          </Box>
        </Box>
      </Flex>
    </Panel>
  )
}

/** Which of the columns are shown, and how to show or hide one. */
export interface ShownColumns<Row> {
  readonly columns: readonly Column<Row>[]
  readonly toggle: (column: string) => void
}

/** Those that this browser remembers. */
function useShownColumns<Row>({ name, columns }: Props<Row>): ShownColumns<Row> {
  const [hidden, setHidden] = useState(() =>
    keptHidden(
      name,
      columns.map(column => column.id),
    ),
  )
  const shown = useMemo(() => columns.filter(column => !hidden.includes(column.id)), [columns, hidden])
  const toggle = useSteady((column: string) => {
    const next = hidden.includes(column) ? hidden.filter(one => one !== column) : [...hidden, column]
    keepHidden(name, next)
    setHidden(next)
  })
  return { columns: shown, toggle }
}

export type { Props as DataTableProps }
