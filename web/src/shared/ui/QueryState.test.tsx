// @vitest-environment jsdom
import { act, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, test, vi } from 'vitest'
import { draw } from '../../testing/draw'
import { Refusal } from '../api'
import { QueryState } from './QueryState'

afterEach(() => void vi.useRealTimers())

const asked = { data: undefined, error: null, isError: false, isFetching: true, refetch: vi.fn() }

const show = (
  query: typeof asked | (Omit<typeof asked, 'data' | 'error'> & { data: string | undefined; error: unknown }),
) =>
  draw(
    <QueryState query={query} failed="The list cannot be shown" skeleton="soon" remedy="Look elsewhere.">
      {data => <b>{data}</b>}
    </QueryState>,
  )

test('a skeleton comes only when it takes long', () => {
  vi.useFakeTimers()
  show(asked)
  expect(screen.getByLabelText('Loading').getAttribute('aria-busy')).toBe('true')
  act(() => void vi.advanceTimersByTime(299))
  expect(screen.queryByText('soon')).toBeNull()
  act(() => void vi.advanceTimersByTime(1))
  expect(screen.queryByText('soon')).toBeTruthy()
})

test('what failed says why and what to do, and can be tried again', async () => {
  const refetch = vi.fn()
  show({ ...asked, isError: true, isFetching: false, error: new Refusal(503, 'away', 'The server rests.'), refetch })
  expect(screen.getByRole('heading').textContent).toBe('The list cannot be shown')
  expect(screen.getByText(/The server rests\. Look elsewhere\./)).toBeTruthy()
  await userEvent.click(screen.getByText('Try again'))
  expect(refetch).toHaveBeenCalledOnce()
})

test('what has been loaded stays when asking again fails, and says so', () => {
  show({
    ...asked,
    data: 'twelve devices',
    isError: true,
    isFetching: false,
    error: new Refusal(503, 'away', 'It rests.'),
  })
  expect(screen.getByText('twelve devices')).toBeTruthy()
  expect(screen.getByRole('status').textContent).toContain('It rests.')
})

test('what exists no longer does not stay', () => {
  show({ ...asked, data: 'twelve devices', isError: true, isFetching: false, error: new Refusal(404, 'gone', 'Gone.') })
  expect(screen.queryByText('twelve devices')).toBeNull()
})
