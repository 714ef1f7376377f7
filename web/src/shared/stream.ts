interface Listener {
  readonly onOpen: () => void
  readonly onLost: () => void
  readonly onChanged: (topic: string) => void
}

const FIRST_WAIT_MS = 1000
const LONGEST_WAIT_MS = 30_000

/**
 * Hears the server's events. A browser opens a broken stream again by itself, but not one that was answered by an error, as by a server that
 * restarts behind a proxy: then another one is opened here, after a wait that doubles. Gives what ends it.
 */
export function keepOpen(
  url: string,
  listener: Listener,
  open: (url: string) => EventSource = at => new EventSource(at),
): () => void {
  let stream: EventSource | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let wait = FIRST_WAIT_MS
  const begin = () => {
    const current = open(url)
    stream = current
    current.addEventListener('open', () => {
      wait = FIRST_WAIT_MS
      listener.onOpen()
    })
    current.addEventListener('changed', event => listener.onChanged(String((event as MessageEvent).data)))
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
