import { Box, Flex } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import type { KeyboardEvent } from 'react'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { fromNow, fullInstant, some } from '../../../shared/format'
import { Notice } from '../../../shared/Notice'
import { useNow } from '../../../shared/useNow'
import type { DeviceRow, Filter } from '../api/fleet'
import { PAGE, useDevicePages } from '../api/fleet'

const ROW = 36
const COLUMNS = '130px minmax(180px, 1.1fr) minmax(120px, 0.8fr) minmax(240px, 1.6fr) 92px'
const CLOCK_MS = 5000

/** The devices, as many as there are; only the rows on the screen are drawn, and only their pages are fetched. */
export function DeviceList({ filter }: { filter: Filter }) {
  const frame = useRef<HTMLDivElement>(null)
  const [total, setTotal] = useState(PAGE)
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 10,
  })
  const items = virtual.getVirtualItems()
  const numbers = [...new Set([0, ...items.map(item => Math.floor(item.index / PAGE))])]
  const pages = useDevicePages(filter, numbers)
  const first = pages[0]
  const now = useNow(CLOCK_MS)
  const known = first?.data?.total
  if (known !== undefined && known !== total) {
    setTotal(known)
  }
  const rowAt = (index: number): DeviceRow | undefined =>
    pages[numbers.indexOf(Math.floor(index / PAGE))]?.data?.rows[index % PAGE]
  if (first !== undefined && failure(first) !== undefined) {
    return <Notice heading="The list cannot be shown">{sentence(first.error)}</Notice>
  }
  if (known === 0) {
    return (
      <Notice heading="No device matches">
        Take a word out of the field above, or choose <Link to="/fleet">all devices</Link>.
      </Notice>
    )
  }
  return (
    <Flex
      direction="column"
      flex="1"
      minH="0"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      overflow="hidden"
      role="table"
      aria-label="Devices"
      aria-rowcount={total + 1}
    >
      <Heads total={known} />
      <Box ref={frame} flex="1" overflowY="auto" role="rowgroup" onKeyDown={moveFocus}>
        <Box position="relative" role="presentation" style={{ height: virtual.getTotalSize() }}>
          {items.map(item => (
            <Row key={item.index} row={rowAt(item.index)} index={item.index} top={item.start} now={now} />
          ))}
        </Box>
      </Box>
    </Flex>
  )
}

/** The arrows go from link to link. */
function moveFocus(event: KeyboardEvent): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  const row = document.activeElement?.closest('[data-index]')
  if (step !== 0 && row instanceof HTMLElement) {
    const next = Number(row.dataset['index']) + step
    row.parentElement?.querySelector<HTMLElement>(`[data-index="${next}"] a`)?.focus()
    event.preventDefault()
  }
}

function Heads({ total }: { total: number | undefined }) {
  return (
    <Box role="rowgroup">
      <Box
        role="row"
        aria-rowindex={1}
        display="grid"
        gridTemplateColumns={COLUMNS}
        gap="14px"
        px="14px"
        py="6px"
        color="ink3"
        fontSize="12.3px"
        borderBottomWidth="1px"
        borderColor="line"
      >
        <Box role="columnheader">{total === undefined ? 'device' : some(total, 'device')}</Box>
        <Box role="columnheader">organisational unit</Box>
        <Box role="columnheader">people</Box>
        <Box role="columnheader">doing</Box>
        <Box role="columnheader" textAlign="right">
          last seen
        </Box>
      </Box>
    </Box>
  )
}

interface RowProps {
  row: DeviceRow | undefined
  index: number
  top: number
  now: number
}

function Row({ row, index, top, now }: RowProps) {
  const navigate = useNavigate()
  return (
    <Box
      role="row"
      aria-rowindex={index + 2}
      data-index={index}
      position="absolute"
      left="0"
      right="0"
      h={`${ROW}px`}
      display="grid"
      gridTemplateColumns={COLUMNS}
      alignItems="center"
      gap="14px"
      px="14px"
      borderBottomWidth="1px"
      borderColor="line"
      cursor="pointer"
      _hover={{ bg: 'hover' }}
      onClick={() => row !== undefined && void navigate(`/fleet/${row.id}`)}
      style={{ top }}
    >
      {row === undefined ? (
        <Box role="cell" color="ink3">
          …
        </Box>
      ) : (
        <Cells row={row} now={now} />
      )}
    </Box>
  )
}

function Cells({ row, now }: { row: DeviceRow; now: number }) {
  return (
    <>
      <Box role="cell" fontWeight="600" truncate>
        <Link to={`/fleet/${row.id}`}>{row.name}</Link>
      </Box>
      <Box role="cell" color="ink2" truncate title={row.ou}>
        {row.ou === '' ? 'outside every OU' : row.ou}
      </Box>
      <Box role="cell" color="ink2" truncate>
        {row.people[0] ?? '–'}
        {row.people.length > 1 && ` and ${row.people.length - 1} more`}
      </Box>
      <Flex
        role="cell"
        align="center"
        gap="10px"
        minW="0"
        color={
          row.state === 'failed'
            ? 'trouble'
            : row.state === 'idle' || row.state === 'not-seen-lately' || row.state === 'never'
              ? 'ink3'
              : 'ink'
        }
      >
        {row.percent !== undefined && (
          <Box w="70px" h="5px" borderRadius="3px" bg="bandNone" flexShrink="0">
            <Box h="100%" borderRadius="3px" bg="required" style={{ width: `${row.percent}%` }} />
          </Box>
        )}
        <Box truncate title={row.line}>
          {row.line}
        </Box>
      </Flex>
      <Box
        role="cell"
        textAlign="right"
        color="ink2"
        {...(row.lastSeen !== undefined && { title: fullInstant(row.lastSeen) })}
      >
        {row.lastSeen === undefined ? 'never' : fromNow(row.lastSeen, now)}
      </Box>
    </>
  )
}
