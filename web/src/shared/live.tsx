import { useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { createContext, useContext, useEffect, useMemo, useRef, useState } from 'react'
import { withQuery } from './api'
import { keepOpen } from './stream'

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
  const begun = useRef(false)
  useEffect(() => {
    const close = keepOpen(withQuery('/api/events', { device }), {
      onOpen: () => {
        setConnected(true)
        // What happened while there was no stream, or another one, nobody has told.
        if (begun.current) {
          void queries.invalidateQueries()
        }
        begun.current = true
      },
      onLost: () => setConnected(false),
      onChanged: topic => {
        old(topic).forEach(key => waiting.add(key))
        if (topic !== 'fleet') {
          refresh()
        }
      },
    })
    const waiting = new Set<string>()
    const refresh = () => {
      waiting.forEach(key => void queries.invalidateQueries({ queryKey: [key] }, { cancelRefetch: false }))
      waiting.clear()
    }
    // The fleet never rests; its lists are asked for anew once a second.
    const timer = window.setInterval(refresh, FLEET_MS)
    return () => {
      window.clearInterval(timer)
      close()
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
