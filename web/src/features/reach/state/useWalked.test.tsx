// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useWalked } from './useWalked'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

function walking(kept: string | undefined) {
  const keep = vi.fn()
  const hook = renderHook(({ of }) => useWalked(of, keep), { initialProps: { of: kept } })
  return { keep, hook, at: () => hook.result.current[0], walk: (ou: string) => act(() => hook.result.current[1](ou)) }
}

test('where one has walked to is known at once, and kept once when one stays', () => {
  const { keep, hook, at, walk } = walking(undefined)
  expect(at()).toBeUndefined()
  walk('vans')
  act(() => void vi.advanceTimersByTime(100))
  walk('works')
  expect(at()).toBe('works')
  act(() => void vi.advanceTimersByTime(100))
  expect(keep).not.toHaveBeenCalled()
  act(() => void vi.advanceTimersByTime(60))
  expect(keep.mock.calls).toEqual([['works']])
  hook.rerender({ of: 'works' })
  expect(at()).toBe('works')
})

test('another address is where one is, whatever was walked to before', () => {
  const { keep, hook, at, walk } = walking('vans')
  walk('works')
  hook.rerender({ of: 'labs' })
  expect(at()).toBe('labs')
  act(() => void vi.advanceTimersByTime(1000))
  expect(keep).not.toHaveBeenCalled()
})

test('Back goes back, and what was walked to does not come again', () => {
  const { keep, hook, at, walk } = walking('vans')
  walk('works')
  act(() => void vi.advanceTimersByTime(200))
  hook.rerender({ of: 'works' })
  hook.rerender({ of: 'vans' })
  expect(at()).toBe('vans')
  act(() => void vi.advanceTimersByTime(1000))
  expect(keep.mock.calls).toEqual([['works']])
})

test('who walks on while the address is still coming round is not taken back', () => {
  const { keep, hook, at, walk } = walking(undefined)
  walk('works')
  act(() => void vi.advanceTimersByTime(200))
  walk('labs')
  hook.rerender({ of: 'works' })
  expect(at()).toBe('labs')
  act(() => void vi.advanceTimersByTime(200))
  expect(keep.mock.calls).toEqual([['works'], ['labs']])
  hook.rerender({ of: 'labs' })
  expect(at()).toBe('labs')
})
