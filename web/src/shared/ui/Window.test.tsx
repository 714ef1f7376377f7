// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { expect, test } from 'vitest'
import { draw } from '../../testing/draw'
import { Button } from './Button'
import { TextField } from './TextField'
import { Window } from './Window'

function Page({ keepsNothing = false }: { keepsNothing?: boolean }) {
  const [open, setOpen] = useState(false)
  const [name, setName] = useState('')
  const navigate = useNavigate()
  return (
    <>
      <Button onClick={() => void navigate('/second')}>Go on</Button>
      <Button onClick={() => setOpen(true)}>Open</Button>
      <Window open={open} onClose={() => setOpen(false)} heading="A window" width="400px" keepsNothing={keepsNothing}>
        <TextField label="Name" value={name} onChange={setName} />
      </Window>
    </>
  )
}

const gone = () => waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())

test('Escape closes a window in which nothing was typed, and the focus goes back to where it was', async () => {
  draw(<Page />)
  await userEvent.click(screen.getByText('Open'))
  await screen.findByRole('dialog')
  await userEvent.keyboard('{Escape}')
  await gone()
  await waitFor(() => expect(document.activeElement).toBe(screen.getByText('Open')))
})

test('what was typed is lost only by whoever says so', async () => {
  draw(<Page />)
  await userEvent.click(screen.getByText('Open'))
  await userEvent.type(await screen.findByLabelText('Name'), 'Tidegate')
  await userEvent.keyboard('{Escape}')
  expect(screen.getByRole('alert').textContent).toContain('not saved')
  await userEvent.click(screen.getByText('Go on editing'))
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Tidegate')
  await userEvent.click(screen.getByLabelText('Close'))
  await userEvent.click(screen.getByText('Discard it'))
  await gone()
})

test('Back asks, too, and goes back only when it may', async () => {
  const { router } = draw(<Page />)
  await userEvent.click(screen.getByText('Go on'))
  await waitFor(() => expect(router.state.location.pathname).toBe('/second'))
  await userEvent.click(screen.getByText('Open'))
  await userEvent.type(await screen.findByLabelText('Name'), 'Tidegate')
  await router.navigate(-1)
  expect((await screen.findByRole('alert')).textContent).toContain('not saved')
  await userEvent.click(screen.getByText('Go on editing'))
  expect(router.state.location.pathname).toBe('/second')
  await router.navigate(-1)
  await userEvent.click(await screen.findByText('Discard it'))
  await waitFor(() => expect(router.state.location.pathname).toBe('/'))
})

test('the browser asks before the page is left while something would be lost', async () => {
  draw(<Page />)
  const leaves = () => window.dispatchEvent(new Event('beforeunload', { cancelable: true }))
  await userEvent.click(screen.getByText('Open'))
  expect(leaves()).toBe(true)
  await userEvent.type(await screen.findByLabelText('Name'), 'T')
  expect(leaves()).toBe(false)
})

test('a window that keeps nothing closes without asking', async () => {
  draw(<Page keepsNothing />)
  await userEvent.click(screen.getByText('Open'))
  await userEvent.type(await screen.findByLabelText('Name'), 'Tidegate')
  await userEvent.keyboard('{Escape}')
  await gone()
})
