// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { draw } from '../../testing/draw'
import { Picker } from './Picker'

const ITEMS = [
  { id: 'tidegate', name: 'Tidegate', second: 'Marlowe & Pask' },
  { id: 'siltscope', name: 'Siltscope Lab', second: 'Fenwick Instruments' },
]

test('a few letters narrow the list, and Enter takes what is first', async () => {
  const onChoose = vi.fn()
  draw(
    <Picker label="A title" placeholder="A title" items={ITEMS} onChoose={onChoose} empty="Nothing is called that." />,
  )
  await userEvent.type(screen.getByRole('combobox'), 'fenw')
  expect((await screen.findAllByRole('option')).map(option => option.textContent)).toEqual([
    'Siltscope LabFenwick Instruments',
  ])
  await userEvent.keyboard('{Enter}')
  expect(onChoose).toHaveBeenCalledWith('siltscope')
})

test('it says when nothing matches', async () => {
  draw(
    <Picker
      label="A title"
      placeholder="A title"
      items={ITEMS}
      onChoose={() => undefined}
      empty="Nothing is called that."
    />,
  )
  await userEvent.type(screen.getByRole('combobox'), 'zzz')
  expect(await screen.findByText('Nothing is called that.')).toBeTruthy()
})

test('whoever looks elsewhere for the items is told what is typed, and all items are shown', async () => {
  const onType = vi.fn()
  draw(
    <Picker label="A title" placeholder="A title" items={ITEMS} onType={onType} onChoose={() => undefined} empty="" />,
  )
  await userEvent.type(screen.getByRole('combobox'), 'zz')
  expect(onType).toHaveBeenLastCalledWith('zz')
  expect(await screen.findAllByRole('option')).toHaveLength(2)
})

test('the name of what is chosen stands in the field, and another one can be taken', async () => {
  const onChoose = vi.fn()
  draw(<Picker label="A title" placeholder="A title" items={ITEMS} value="tidegate" onChoose={onChoose} empty="" />)
  const field = screen.getByRole<HTMLInputElement>('combobox')
  expect(field.value).toBe('Tidegate')
  await userEvent.click(field)
  expect(await screen.findAllByRole('option')).toHaveLength(2)
  await userEvent.clear(field)
  await userEvent.type(field, 'silt')
  expect(field.value).toBe('silt')
  expect(await screen.findAllByRole('option')).toHaveLength(1)
  await userEvent.keyboard('{Enter}')
  expect(onChoose).toHaveBeenCalledWith('siltscope')
})

test('a long list is drawn in part while it is open, and found whole by typing', async () => {
  const many = Array.from({ length: 150 }, (_, i) => ({ id: `t${i}`, name: `Title ${i}.` }))
  draw(<Picker label="A title" placeholder="A title" items={many} onChoose={() => undefined} empty="" />)
  const field = screen.getByRole('combobox')
  expect(screen.queryAllByRole('option', { hidden: true })).toHaveLength(0)
  await userEvent.click(field)
  expect(await screen.findAllByRole('option')).toHaveLength(100)
  expect(screen.getByText('and 50 more: type to find them')).toBeTruthy()
  await userEvent.type(field, '149.')
  expect((await screen.findAllByRole('option')).map(option => option.textContent)).toEqual(['Title 149.'])
  expect(screen.queryByText(/more: type/)).toBeNull()
})
