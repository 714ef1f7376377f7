export { useSignOut } from './api/session'
export { useSession } from './state/SessionContext'
export { SessionGate } from './view/SessionGate'
export { SessionsWindow } from './view/later'
