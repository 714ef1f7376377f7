// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { draw } from '../testing/draw'
import { name, oneOf, text } from './address'
import { useAddressState, useOpenWindow } from './useAddressState'

const ADDRESS = { q: text, ou: name, as: oneOf('map', 'table') }

function Page() {
  const [address, set] = useAddressState(ADDRESS)
  const [open, setOpen] = useOpenWindow()
  return (
    <>
      <input aria-label="q" value={address.q} onChange={event => set({ q: event.target.value })} />
      <button
        onClick={() => {
          set({ ou: 'labs' })
          set({ as: 'table' })
        }}
      >
        both
      </button>
      <button onClick={() => setOpen('about')}>open</button>
      <button onClick={() => setOpen(undefined)}>close</button>
      <output>{`${address.q} ${address.ou ?? '-'} ${address.as} ${open ?? 'closed'}`}</output>
    </>
  )
}

const said = () => screen.getByRole('status').textContent
const back = async () => {
  window.history.back()
  await new Promise(resolve => setTimeout(resolve, 50))
}

test('the address holds the state, and two changes at once are both in it', async () => {
  draw(<Page />)
  await userEvent.click(screen.getByText('both'))
  await waitFor(() => expect(said()).toBe(' labs table closed'))
  expect(window.location.search).toBe('?ou=labs&as=table')
})

test('Back undoes a word as a whole, and a look at something else by itself', async () => {
  draw(<Page />)
  await userEvent.click(screen.getByText('both'))
  await userEvent.type(screen.getByLabelText('q'), 'pump')
  await waitFor(() => expect(said()).toBe('pump labs table closed'))
  await back()
  await waitFor(() => expect(said()).toBe(' labs table closed'))
})

test('a window that was closed is not opened again by Back', async () => {
  vi.spyOn(performance, 'now').mockImplementation(() => Date.now() * 10)
  draw(<Page />)
  await userEvent.click(screen.getByText('both'))
  await userEvent.click(screen.getByText('open'))
  await waitFor(() => expect(said()).toBe(' labs table about'))
  await userEvent.click(screen.getByText('close'))
  await waitFor(() => expect(said()).toBe(' labs table closed'))
  await back()
  expect(said()).not.toContain('about')
  vi.restoreAllMocks()
})

test('what Back has undone can be done again', async () => {
  draw(<Page />)
  await userEvent.click(screen.getByText('both'))
  await userEvent.click(screen.getByText('open'))
  await waitFor(() => expect(said()).toBe(' labs table about'))
  await back()
  await waitFor(() => expect(said()).toBe(' labs table closed'))
  await userEvent.click(screen.getByText('open'))
  await waitFor(() => expect(said()).toBe(' labs table about'))
})
