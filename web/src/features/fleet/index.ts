export { useFleetCounts } from './api/fleet'
