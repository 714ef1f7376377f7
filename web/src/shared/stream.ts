/** What has changed on the server since one was told last. */
export interface Changed {
  /** Such as `title:tidegate`; see Topics on the server. */
  readonly topics: readonly string[]
  /** The ids of the devices that said something. */
  readonly devices: readonly string[]
  /** Whether those are too many to name. */
  readonly manyDevices: boolean
}

interface Listener {
  readonly onOpen: () => void
  readonly onLost: () => void
  readonly onChanged: (changed: Changed) => void
  /** More has changed meanwhile than the server still knows: everything is old. */
  readonly onMissed: () => void
}

const FIRST_WAIT_MS = 1000
const LONGEST_WAIT_MS = 30_000

/**
 * Hears the server's numbered events, and goes on where it was when a stream ends. A browser opens a broken stream again by itself, and says
 * the last number, but not one that was answered by an error, as by a server that restarts behind a proxy: then another one is opened here,
 * after a wait that doubles, with the last number in its address. Gives what ends it.
 */
export function keepOpen(
  url: string,
  listener: Listener,
  open: (url: string) => EventSource = at => new EventSource(at),
): () => void {
  let stream: EventSource | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let wait = FIRST_WAIT_MS
  let last = ''
  const begin = () => {
    const current = open(last === '' ? url : `${url}?after=${encodeURIComponent(last)}`)
    stream = current
    const hear = (name: string, heard: (data: string) => void) =>
      current.addEventListener(name, event => {
        const message = event as MessageEvent
        last = message.lastEventId === '' ? last : message.lastEventId
        heard(String(message.data))
      })
    current.addEventListener('open', () => {
      wait = FIRST_WAIT_MS
      listener.onOpen()
    })
    hear('begun', () => undefined)
    hear('missed', () => listener.onMissed())
    hear('changed', data => listener.onChanged(JSON.parse(data) as Changed))
    current.addEventListener('error', () => {
      listener.onLost()
      if (current.readyState === CLOSED) {
        timer = setTimeout(begin, wait)
        wait = Math.min(LONGEST_WAIT_MS, wait * 2)
      }
    })
  }
  begin()
  return () => {
    clearTimeout(timer)
    stream?.close()
  }
}

/** {@link EventSource.CLOSED}, which tests have not. */
const CLOSED = 2
