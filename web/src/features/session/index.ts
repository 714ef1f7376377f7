export { useSignOut } from './api/session'
export { useSession } from './model/SessionContext'
export { SessionGate } from './view/SessionGate'
export { SessionsWindow } from './view/SessionsWindow'
