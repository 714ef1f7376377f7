import type { RefObject } from 'react'
import { useEffect, useRef, useState } from 'react'

/** The inner size of an element, as it changes. */
export function useSize<T extends HTMLElement>(): [RefObject<T | null>, { width: number; height: number }] {
  const element = useRef<T>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  useEffect(() => {
    if (element.current === null) {
      return undefined
    }
    const observer = new ResizeObserver(entries => {
      const box = entries[0]?.contentRect
      if (box !== undefined) {
        setSize({ width: box.width, height: box.height })
      }
    })
    observer.observe(element.current)
    return () => observer.disconnect()
  }, [])
  return [element, size]
}
