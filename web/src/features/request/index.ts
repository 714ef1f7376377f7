export type { RequestRow } from './api/requests'
export { useRequests } from './api/requests'
export { RequestList } from './view/RequestList'
export { RequestsPart } from './view/RequestsPart'
