import { describe, expect, it } from 'vitest'
import type { KeyAct } from './keys'
import { pressedAct } from './keys'

const act = (key: string): KeyAct => ({ key, says: key, act: () => undefined })

describe('a key', () => {
  const acts = [act('r'), act('g r'), act('g c'), act('ctrl+k')]

  it('does what it says, and the latest that says so goes first', () => {
    const nearer = act('r')
    expect(pressedAct(acts, '', 'r')).toBe(acts[0])
    expect(pressedAct([...acts, nearer], '', 'r')).toBe(nearer)
    expect(pressedAct(acts, '', 'x')).toBeUndefined()
    expect(pressedAct(acts, '', 'g')).toBeUndefined()
  })

  it('goes on with what the one before it began, or does nothing', () => {
    expect(pressedAct(acts, 'g', 'c')).toBe(acts[2])
    expect(pressedAct(acts, 'g', 'r')).toBe(acts[1])
    expect(pressedAct([...acts, act('x')], 'g', 'x')).toBeUndefined()
  })

  it('stands for itself after one that begins nothing', () => {
    expect(pressedAct(acts, 'x', 'r')).toBe(acts[0])
  })
})
