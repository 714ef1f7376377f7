// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { answering, draw } from '../../../testing/draw'
import { AudiencePicker } from './AudiencePicker'

const LABS = {
  target: 'ou:labs',
  kind: 'ou',
  name: 'Laboratories',
  where: 'Quillbrook Water',
  devices: 612,
  people: 580,
}
const CREW = { target: 'group:crew', kind: 'group', name: 'Lab crew', where: 'security group', devices: 0, people: 37 }

const serve = () =>
  answering(url => ({
    lines: new URL(url, 'http://rivo').searchParams.getAll('kind').includes('ou') ? [LABS] : [CREW],
    kinds: [
      { kind: 'ou', matches: 1 },
      { kind: 'group', matches: 12 },
    ],
  }))

test('it opens on the kind that fits, and the others are one key away, with how many match', async () => {
  serve()
  draw(<AudiencePicker label="Whom" follows="device" onChoose={() => undefined} />)
  expect(screen.getAllByRole('radio').map(radio => (radio as HTMLInputElement).value)).toEqual([
    'ou',
    'group',
    'collection',
    'device',
  ])
  await userEvent.type(screen.getByRole('combobox'), 'lab')
  expect(await screen.findByText('Groups 12')).toBeTruthy()
  expect((await screen.findByRole('option')).textContent).toBe('LaboratoriesQuillbrook Water612 devices, 580 people')
})

test('what is chosen is told whole, and the rest is said to be there', async () => {
  serve()
  const onChoose = vi.fn()
  draw(<AudiencePicker label="Whom" follows="person" first="group" onChoose={onChoose} />)
  await userEvent.type(screen.getByRole('combobox'), 'crew')
  expect(await screen.findByText('The first 1 of 12; type more letters.')).toBeTruthy()
  await waitFor(() => expect(screen.getByRole('option').hasAttribute('data-highlighted')).toBe(true))
  await userEvent.keyboard('{Enter}')
  expect(onChoose).toHaveBeenCalledWith(CREW)
})
