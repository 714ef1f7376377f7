import { useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { createContext, useContext, useEffect, useMemo, useState } from 'react'
import { withQuery } from './api'

interface Live {
  readonly connected: boolean
  readonly watch: (device: string | undefined) => void
}

const LiveContext = createContext<Live>({ connected: true, watch: () => undefined })

/** Which of the held answers each topic makes old. */
const OLD: Record<string, readonly string[]> = {
  estate: ['reach', 'titles', 'draft', 'devices', 'fleet', 'device'],
  fleet: ['fleet', 'devices'],
  directory: ['directory'],
}

/** Keeps what is shown up to date, by the server's stream of changed topics. */
export function LiveProvider({ children }: { children: ReactNode }) {
  const queries = useQueryClient()
  const [device, watch] = useState<string | undefined>(undefined)
  const [connected, setConnected] = useState(true)
  useEffect(() => {
    const stream = new EventSource(withQuery('/api/events', { device }))
    let lost = false
    stream.addEventListener('open', () => {
      setConnected(true)
      if (lost) {
        void queries.invalidateQueries()
      }
    })
    stream.addEventListener('error', () => {
      lost = true
      setConnected(false)
    })
    stream.addEventListener('changed', event => {
      for (const key of old(String((event as MessageEvent).data))) {
        void queries.invalidateQueries({ queryKey: [key] }, { cancelRefetch: false })
      }
    })
    return () => stream.close()
  }, [device, queries])
  const live = useMemo(() => ({ connected, watch }), [connected])
  return <LiveContext.Provider value={live}>{children}</LiveContext.Provider>
}

function old(topic: string): readonly string[] {
  if (topic.startsWith('device:')) {
    return ['device']
  }
  return topic.startsWith('draft:') ? ['draft', 'reach'] : (OLD[topic] ?? [])
}

/** Hears of this device too, while whoever calls is on the screen. */
export function useWatchDevice(device: string): void {
  const { watch } = useContext(LiveContext)
  useEffect(() => {
    watch(device)
    return () => watch(undefined)
  }, [device, watch])
}

export function useConnected(): boolean {
  return useContext(LiveContext).connected
}
