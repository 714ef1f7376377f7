// @vitest-environment jsdom
import { renderHook } from '@testing-library/react'
import { expect, test } from 'vitest'
import { useShared } from './useShared'

test('what says the same is the very same', () => {
  const first = { a: { n: 1 }, b: [{ n: 2 }, { n: 3 }] }
  const { result, rerender } = renderHook(({ data }) => useShared(data), { initialProps: { data: first } })
  expect(result.current).toBe(first)
  rerender({ data: { a: { n: 1 }, b: [{ n: 2 }, { n: 4 }] } })
  expect(result.current).toEqual({ a: { n: 1 }, b: [{ n: 2 }, { n: 4 }] })
  expect(result.current.a).toBe(first.a)
  expect(result.current.b[0]).toBe(first.b[0])
  expect(result.current.b[1]).not.toBe(first.b[1])
  const before = result.current
  rerender({ data: structuredClone(before) })
  expect(result.current).toBe(before)
})
