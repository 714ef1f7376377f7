import { Outlet } from 'react-router'
import { SessionGate } from '../features/session'
import { KeysProvider } from '../shared/keys'
import { LiveProvider } from '../shared/live'
import { Announcer } from '../shared/ui/Announcer'
import { Toasts } from '../shared/ui/Toasts'
import { Arrival } from './Arrival'

/** What every shell stands in: whoever is signed in, the keys, the stream of events, and what is said in passing. */
export function Frame() {
  return (
    <SessionGate>
      <KeysProvider>
        <LiveProvider>
          <Outlet />
          <Arrival />
          <Toasts />
          <Announcer />
        </LiveProvider>
      </KeysProvider>
    </SessionGate>
  )
}
