// @vitest-environment jsdom
import { renderHook } from '@testing-library/react'
import { expect, test, vi } from 'vitest'
import { useSteady } from './useSteady'

test('it is the very same at every drawing and does what the latest does', () => {
  const first = vi.fn()
  const second = vi.fn()
  const { result, rerender } = renderHook(({ act }: { act: (n: number) => void }) => useSteady(act), {
    initialProps: { act: first },
  })
  const steady = result.current
  rerender({ act: second })
  expect(result.current).toBe(steady)
  steady(7)
  expect(first).not.toHaveBeenCalled()
  expect(second).toHaveBeenCalledWith(7)
})
