// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { draw } from '../../../testing/draw'
import { EditWindow } from './EditWindow'
import type { TitleRecord } from '../api/catalogue'
import type { Editing } from '../state/useEdit'

const record = { id: 'silt', name: 'Siltscope', releases: [] } as unknown as TitleRecord
const editing: Editing = {
  save: () => undefined,
  change: edit => ({ record: edit(record), revision: 3 }),
  revision: 3,
  pending: false,
  refusal: undefined,
}

/** Opens a window with an edit in it; gives how the server goes on answering each rehearsal. */
function open() {
  const answers: ((body: object, status?: number) => void)[] = []
  vi.stubGlobal(
    'fetch',
    () =>
      new Promise<Response>(answer => {
        answers.push((body, status = 200) => answer(new Response(JSON.stringify(body), { status })))
      }),
  )
  const drawn = draw(
    <EditWindow heading="Edit" editing={editing} edit={one => ({ ...one, name: 'Silt' })} onClose={() => undefined}>
      {null}
    </EditWindow>,
  )
  const rehearsals = (number: number) => waitFor(() => expect(answers).toHaveLength(number), { timeout: 5000 })
  return { answers, rehearsals, queries: drawn.queries }
}

const loses = (devices: number) => ({
  devices: 60,
  effects: [{ title: 'silt', name: 'Siltscope', effect: 'loses', devices }],
})

const isBusy = () => screen.getByText('Save').getAttribute('aria-busy')

test('what is typed stays while it is rehearsed again, and nothing is saved until that is known', async () => {
  const { answers, rehearsals, queries } = open()
  await rehearsals(1)
  expect(isBusy()).toBe('true')
  answers[0]?.(loses(3))
  const why = await screen.findByLabelText<HTMLInputElement>(/Why/)
  await userEvent.type(why, 'Because')
  expect(isBusy()).toBe('false')
  void queries.invalidateQueries({ queryKey: ['effects'] })
  await rehearsals(2)
  await waitFor(() => expect(isBusy()).toBe('true'))
  expect(document.activeElement).toBe(why)
  answers[1]?.(loses(5))
  await waitFor(() => expect(screen.getByRole('status').textContent).toContain('5 no longer get Siltscope'))
  expect(why.value).toBe('Because')
  expect(isBusy()).toBe('false')
})

test('why it cannot be rehearsed is said', async () => {
  const { answers, rehearsals, queries } = open()
  await rehearsals(1)
  answers[0]?.(loses(3))
  await screen.findByLabelText(/Why/)
  void queries.invalidateQueries({ queryKey: ['effects'] })
  await rehearsals(2)
  answers[1]?.({ code: 'busy', detail: 'Rivo is busy. Try again in a moment.' }, 503)
  await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('Rivo is busy. Try again in a moment.'))
  expect(screen.queryByLabelText(/Why/)).toBeNull()
})
