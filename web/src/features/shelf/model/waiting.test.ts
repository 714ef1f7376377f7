import { describe, expect, it } from 'vitest'
import de from '../texts/de.json'
import en from '../texts/en.json'
import { filled } from './texts'
import type { Texts } from './texts'
import { waiting } from './waiting'

const NOW = Date.parse('2026-11-28T09:00:00Z')
const LATER = '2026-11-28T22:00:00Z'

function says(texts: Texts) {
  return {
    say: (key: keyof Texts, values?: Readonly<Record<string, string | number>>) => filled(texts[key], values),
    day: () => 'Sat 28 Nov, 22:00',
    time: () => '22:00',
  }
}

describe('what something waits for', () => {
  it('names the time of a window and of a deadline', () => {
    const window = { waitsFor: 'window', due: LATER, line: 'as the device says' } as const
    expect(waiting(window, says(en), NOW)).toBe("installed in this computer's maintenance window, Sat 28 Nov, 22:00")
    expect(waiting(window, says(de), NOW)).toBe(
      'wird im Wartungsfenster dieses Computers installiert, Sat 28 Nov, 22:00',
    )
    expect(waiting({ ...window, waitsFor: 'deadline' }, says(en), NOW)).toBe('installed Sat 28 Nov, 22:00')
  })

  it('says what the computer says where no time is known', () => {
    expect(waiting({ waitsFor: 'window', line: 'waits for its window' }, says(en), NOW)).toBe(
      'waiting: waits for its window',
    )
    expect(waiting({ line: 'something else' }, says(en), NOW)).toBe('waiting: something else')
  })

  it('says when the computer asks next, unless that is past', () => {
    expect(waiting({ waitsFor: 'computer', due: LATER, line: '' }, says(en), NOW)).toContain('about 22:00')
    expect(waiting({ waitsFor: 'computer', due: '2026-11-28T08:00:00Z', line: '' }, says(en), NOW)).toBe(
      'starts when this computer next asks for it',
    )
  })

  it('says each reason that is no time', () => {
    for (const waitsFor of ['sign-in', 'seat', 'need', 'approval', 'restart'] as const) {
      expect(waiting({ waitsFor, line: '' }, says(en), NOW)).toBe(en[`state.waiting.${waitsFor}`])
    }
  })
})
