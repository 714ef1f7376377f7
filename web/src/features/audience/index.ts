export type { Audience } from './api/audiences'
export { AudiencePicker } from './view/AudiencePicker'
