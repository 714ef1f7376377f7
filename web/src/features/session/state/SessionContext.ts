import { createContext, useContext } from 'react'
import type { Session } from '../api/session'

export const SessionContext = createContext<Session | null>(null)

/** Who is signed in. Works only within the gate. */
export function useSession(): Session {
  const session = useContext(SessionContext)
  if (session === null) {
    throw new Error('nobody is signed in here')
  }
  return session
}
