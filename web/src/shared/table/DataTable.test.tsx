// @vitest-environment jsdom
import { fireEvent, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { expect, test, vi } from 'vitest'
import { draw } from '../../testing/draw'
import type { Column, Order } from './columns'
import { nextOrder } from './columns'
import { DataTable } from './DataTable'

interface Line {
  readonly id: string
}

const COLUMNS: readonly Column<Line>[] = [
  {
    id: 'name',
    head: 'name',
    width: '1fr',
    always: true,
    sortable: true,
    cell: line => (
      <a className="opens" href={`#${line.id}`}>
        {line.id}
      </a>
    ),
  },
  { id: 'half', head: 'half', width: '80px', cell: line => `half of ${line.id}` },
]
const MANY = 100_000

interface Told {
  onOpen?: (line: Line) => void
  onLook?: (first: number, last: number) => void
  total?: number
}

function List({ onOpen = () => undefined, onLook = () => undefined, total = MANY }: Told) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [order, setOrder] = useState<Order | undefined>(undefined)
  return (
    <DataTable
      label="Lines"
      name="test"
      columns={COLUMNS}
      total={total}
      count={`${total} lines`}
      rowAt={i => ({ id: `line ${order?.descending === true ? total - i : i}` })}
      idOf={line => line.id}
      onLook={onLook}
      order={order}
      onOrder={column => setOrder(nextOrder(order, column))}
      onOpen={onOpen}
      chosen={{ ids: chosen, set: setChosen, acts: null }}
      csv="/lines.csv"
      empty="There is none."
    />
  )
}

const current = () => document.querySelector('[data-current="true"]')?.getAttribute('aria-rowindex')
const press = (...keys: readonly (string | [string, object])[]) =>
  keys.forEach(key => {
    const [name, how] = typeof key === 'string' ? [key, {}] : key
    fireEvent.keyDown(screen.getByRole('grid'), { key: name, ...how })
  })
const chosen = () =>
  [...document.querySelectorAll('[aria-selected="true"]')].map(row => row.getAttribute('aria-rowindex'))

test('of very many rows only those on the screen are drawn, and asked for', () => {
  const onLook = vi.fn()
  draw(<List onLook={onLook} />)
  expect(screen.getByRole('grid').getAttribute('aria-rowcount')).toBe('100000')
  const rows = screen.getAllByRole('row').length
  expect(rows).toBeGreaterThan(10)
  expect(rows).toBeLessThan(40)
  expect(onLook).toHaveBeenLastCalledWith(0, rows - 1)
})

test('the keys walk it, and Enter opens the row that one is at', () => {
  const onOpen = vi.fn()
  draw(<List onOpen={onOpen} />)
  expect(current()).toBe('1')
  press('ArrowDown', 'ArrowDown')
  expect(current()).toBe('3')
  press('ArrowUp', 'Enter')
  expect(onOpen).toHaveBeenCalledWith({ id: 'line 1' })
  press('Home', 'ArrowUp')
  expect(current()).toBe('1')
  press('PageDown')
  expect(current()).toBe('11')
  expect(screen.getByRole('grid').getAttribute('aria-activedescendant')).toBe(
    document.querySelector('[data-current="true"]')?.id,
  )
})

test('Space chooses, Shift chooses all on the way, Escape lets go', () => {
  draw(<List />)
  press(' ', 'ArrowDown', 'ArrowDown', ' ')
  expect(chosen()).toEqual(['1', '3'])
  expect(screen.getByText('2 chosen')).toBeTruthy()
  press(['ArrowDown', { shiftKey: true }], ['ArrowDown', { shiftKey: true }])
  expect(chosen()).toEqual(['1', '3', '4', '5'])
  press('Escape')
  expect(chosen()).toEqual([])
  expect(screen.getByText('100000 lines')).toBeTruthy()
})

test('a box chooses its row without opening it, with Shift all from the last one', async () => {
  const onOpen = vi.fn()
  draw(<List onOpen={onOpen} />)
  const boxes = screen.getAllByRole('checkbox')
  await userEvent.click(boxes[1] as HTMLElement)
  fireEvent.click(boxes[4] as HTMLElement, { shiftKey: true })
  expect(chosen()).toEqual(['2', '3', '4', '5'])
  expect(onOpen).not.toHaveBeenCalled()
  await userEvent.click(screen.getByText('line 3'))
  expect(onOpen).toHaveBeenCalledWith({ id: 'line 3' })
})

test('the link of a row opens it here, and elsewhere for whoever asks for that', () => {
  const onOpen = vi.fn()
  draw(<List onOpen={onOpen} />)
  const link = screen.getByText('line 3')
  expect(fireEvent.click(link, { ctrlKey: true }), 'the browser is left to it').toBe(true)
  expect(onOpen).not.toHaveBeenCalled()
  expect(fireEvent.click(link)).toBe(false)
  expect(onOpen).toHaveBeenCalledExactlyOnceWith({ id: 'line 3' })
})

test('a head puts the list in its order, and says so', async () => {
  draw(<List />)
  await userEvent.click(screen.getByText('name'))
  expect(screen.getByLabelText('Sort by name, in ascending order')).toBeTruthy()
  await userEvent.click(screen.getByText('name'))
  expect(screen.getByLabelText('Sort by name, in descending order')).toBeTruthy()
  expect(screen.getAllByRole('row')[0]?.textContent).toContain('line 100000')
})

test('a column that was hidden stays so, and one that is always shown cannot be', async () => {
  const { unmount } = draw(<List />)
  await userEvent.click(screen.getByLabelText('Columns'))
  expect(await screen.findByRole('menuitemcheckbox', { name: 'half' })).toBeTruthy()
  expect(screen.queryByRole('menuitemcheckbox', { name: 'name' })).toBeNull()
  await userEvent.click(screen.getByRole('menuitemcheckbox', { name: 'half' }))
  expect(screen.queryByText('half of line 0')).toBeNull()
  unmount()
  draw(<List />)
  expect(screen.queryByText('half of line 0')).toBeNull()
  expect(screen.getByText('line 0')).toBeTruthy()
})

test('an empty list says what is missing', () => {
  draw(<List total={0} />)
  expect(screen.getByText('There is none.')).toBeTruthy()
  expect(screen.queryByRole('grid')).toBeNull()
})
