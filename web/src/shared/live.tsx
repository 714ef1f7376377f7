import { useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { createContext, useContext, useEffect, useMemo, useState } from 'react'
import { withQuery } from './api'

interface Live {
  readonly connected: boolean
  readonly watch: (device: string | undefined) => void
}

const LiveContext = createContext<Live>({ connected: true, watch: () => undefined })

const FLEET_MS = 1000

/** Which of the held answers each topic makes old. */
const OLD: Record<string, readonly string[]> = {
  estate: [
    'reach',
    'titles',
    'title',
    'kits',
    'mirrors',
    'windows',
    'effects',
    'trial',
    'draft',
    'devices',
    'fleet',
    'device',
  ],
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
    const waiting = new Set<string>()
    const refresh = () => {
      waiting.forEach(key => void queries.invalidateQueries({ queryKey: [key] }, { cancelRefetch: false }))
      waiting.clear()
    }
    stream.addEventListener('changed', event => {
      const topic = String((event as MessageEvent).data)
      old(topic).forEach(key => waiting.add(key))
      if (topic !== 'fleet') {
        refresh()
      }
    })
    // The fleet never rests; its lists are asked for anew once a second.
    const timer = window.setInterval(refresh, FLEET_MS)
    return () => {
      window.clearInterval(timer)
      stream.close()
    }
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
