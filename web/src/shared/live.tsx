import type { QueryClient } from '@tanstack/react-query'
import { useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { createContext, useContext, useEffect, useMemo, useRef, useState } from 'react'
import { madeOld } from './old'
import type { Changed } from './stream'
import { keepOpen } from './stream'

type DevicesListener = (changed: Pick<Changed, 'devices' | 'manyDevices'>) => void

interface Live {
  readonly connected: boolean
  readonly onDevices: (listener: DevicesListener) => () => void
}

const LiveContext = createContext<Live>({ connected: true, onDevices: () => () => undefined })

/** The server counts the states of the fleet at most about so often. */
const COUNTS_MS = 2000

/** Keeps what is shown up to date, by the one stream of what changes on the server. */
export function LiveProvider({ children }: { children: ReactNode }) {
  const queries = useQueryClient()
  const [connected, setConnected] = useState(true)
  const listeners = useRef(new Set<DevicesListener>())
  useEffect(() => {
    const renewal = renewing(queries)
    const close = keepOpen('/api/events', {
      onOpen: () => setConnected(true),
      onLost: () => setConnected(false),
      onMissed: () => void queries.invalidateQueries(),
      onChanged: changed => {
        for (const topic of changed.topics) {
          const { keys, within } = madeOld(topic)
          keys.forEach(key => renewal.renew(key, within))
        }
        if (changed.devices.length > 0 || changed.manyDevices) {
          renewal.renew(['fleet'], COUNTS_MS)
          changed.devices.forEach(device => renewal.renew(['device', device], 0))
          listeners.current.forEach(listener => listener(changed))
        }
        if (changed.manyDevices) {
          renewal.renew(['device'], COUNTS_MS)
        }
      },
    })
    return () => {
      close()
      renewal.end()
    }
  }, [queries])
  const live = useMemo<Live>(
    () => ({
      connected,
      onDevices: listener => {
        listeners.current.add(listener)
        return () => listeners.current.delete(listener)
      },
    }),
    [connected],
  )
  return <LiveContext.Provider value={live}>{children}</LiveContext.Provider>
}

/** Asks for what is old anew, each once for all that changes while it waits. */
function renewing(queries: QueryClient) {
  const waiting = new Map<string, ReturnType<typeof setTimeout>>()
  return {
    renew: (key: readonly string[], within: number) => {
      const name = `${within} ${JSON.stringify(key)}`
      if (!waiting.has(name)) {
        const now = () => {
          waiting.delete(name)
          void queries.invalidateQueries({ queryKey: key }, { cancelRefetch: false })
        }
        waiting.set(name, setTimeout(now, within))
      }
    },
    end: () => waiting.forEach(timer => clearTimeout(timer)),
  }
}

/** Hears which devices have said something, while whoever calls is on the screen. */
export function useChangedDevices(listener: DevicesListener): void {
  const { onDevices } = useContext(LiveContext)
  const latest = useRef(listener)
  useEffect(() => {
    latest.current = listener
  })
  useEffect(() => onDevices(changed => latest.current(changed)), [onDevices])
}

export function useConnected(): boolean {
  return useContext(LiveContext).connected
}
