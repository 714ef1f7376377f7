import { expect, it } from 'vitest'
import { base64 } from './base64'

it('writes any bytes, however many', () => {
  expect(base64(new Uint8Array([0x30, 0x82, 0xff]))).toBe('MIL/')
  const many = Uint8Array.from({ length: 100_000 }, (_, i) => i % 256)
  expect([...atob(base64(many))].map(letter => letter.charCodeAt(0))).toEqual([...many])
  expect(base64(new Uint8Array())).toBe('')
})
