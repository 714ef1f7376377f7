export { useSignOut } from './api/session'
export { useSession } from './model/SessionContext'
export { SessionGate } from './view/SessionGate'
