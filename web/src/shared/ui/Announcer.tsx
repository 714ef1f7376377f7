import { Box } from '@chakra-ui/react'
import { useEffect, useSyncExternalStore } from 'react'

let said = ''
const listeners = new Set<() => void>()

/** Says something to those who do not see. */
export function announce(words: string): void {
  said = words
  listeners.forEach(listener => listener())
}

/** Says it whenever it becomes something else; nothing while there is nothing to say. */
export function useAnnounced(words: string | undefined): void {
  useEffect(() => {
    if (words !== undefined && words !== '') {
      announce(words)
    }
  }, [words])
}

/** Where it is said; once, around every shell, and there before anything is: what comes together with its words is not heard. */
export function Announcer() {
  const words = useSyncExternalStore(
    listener => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => said,
  )
  return (
    <Box role="status" aria-live="polite" srOnly data-announcer="">
      {words}
    </Box>
  )
}
