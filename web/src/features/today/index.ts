export { useToday } from './api/today'
