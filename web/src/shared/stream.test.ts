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
  const urls: string[] = []
  const begin = () =>
    keepOpen(
      '/api/events',
      {
        onOpen: () => heard.push('open'),
        onLost: () => heard.push('lost'),
        onMissed: () => heard.push('missed'),
        onChanged: changed => heard.push(`${changed.topics.join()} ${changed.devices.join()}`),
      },
      url => {
        const stream = new Stream()
        streams.push(stream)
        urls.push(url)
        return stream as unknown as EventSource
      },
    )
  const tell = (event: string, lastEventId: string, data: object | string = '') =>
    streams
      .at(-1)
      ?.dispatchEvent(
        new MessageEvent(event, { lastEventId, data: typeof data === 'string' ? data : JSON.stringify(data) }),
      )
  beforeEach(() => {
    streams.length = 0
    urls.length = 0
    heard.length = 0
    vi.useFakeTimers()
  })
  afterEach(() => void vi.useRealTimers())

  it('tells what changed, and that some was missed', () => {
    begin()
    streams[0]?.dispatchEvent(new Event('open'))
    tell('begun', 'a-1')
    tell('changed', 'a-2', { topics: ['kits', 'titles'], devices: ['d1'], manyDevices: false })
    tell('missed', 'a-9')
    expect(heard).toEqual(['open', 'kits,titles d1', 'missed'])
  })

  it('goes on from the last number when it opens another one', () => {
    begin()
    expect(urls).toEqual(['/api/events'])
    tell('begun', 'a-1')
    streams[0]?.fails(2)
    vi.advanceTimersByTime(1000)
    expect(urls.at(-1)).toBe('/api/events?after=a-1')
    tell('changed', 'a b-7', { topics: [], devices: [], manyDevices: false })
    tell('changed', '', { topics: [], devices: [], manyDevices: false })
    streams[1]?.fails(2)
    vi.advanceTimersByTime(2000)
    expect(urls.at(-1)).toBe('/api/events?after=a%20b-7')
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
