import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { keepOpen } from './stream'

class Stream extends EventTarget {
  readyState = 0
  closed = false

  close() {
    this.closed = true
  }

  fails(readyState: number) {
    this.readyState = readyState
    this.dispatchEvent(new Event('error'))
  }
}

describe('the stream of events', () => {
  const streams: Stream[] = []
  const heard: string[] = []
  const begin = () =>
    keepOpen(
      '/api/events',
      { onOpen: () => heard.push('open'), onLost: () => heard.push('lost'), onChanged: topic => heard.push(topic) },
      () => {
        const stream = new Stream()
        streams.push(stream)
        return stream as unknown as EventSource
      },
    )
  beforeEach(() => {
    streams.length = 0
    heard.length = 0
    vi.useFakeTimers()
  })
  afterEach(() => void vi.useRealTimers())

  it('tells what changed', () => {
    begin()
    streams[0]?.dispatchEvent(new Event('open'))
    streams[0]?.dispatchEvent(new MessageEvent('changed', { data: 'fleet' }))
    expect(heard).toEqual(['open', 'fleet'])
  })

  it('leaves a broken one to the browser, which opens it again by itself', () => {
    begin()
    streams[0]?.fails(0)
    vi.advanceTimersByTime(60_000)
    expect(heard).toEqual(['lost'])
    expect(streams).toHaveLength(1)
  })

  it('opens a closed one again, after waits that double up to half a minute and begin anew once it was open', () => {
    begin()
    for (const wait of [1000, 2000, 4000, 8000, 16_000, 30_000, 30_000]) {
      const before = streams.length
      streams.at(-1)?.fails(2)
      vi.advanceTimersByTime(wait - 1)
      expect(streams).toHaveLength(before)
      vi.advanceTimersByTime(1)
      expect(streams).toHaveLength(before + 1)
    }
    streams.at(-1)?.dispatchEvent(new Event('open'))
    const before = streams.length
    streams.at(-1)?.fails(2)
    vi.advanceTimersByTime(1000)
    expect(streams).toHaveLength(before + 1)
  })

  it('ends for good, even while it waits', () => {
    const end = begin()
    streams[0]?.fails(2)
    end()
    vi.advanceTimersByTime(60_000)
    expect(streams).toHaveLength(1)
    expect(streams[0]?.closed).toBe(true)
  })
})
