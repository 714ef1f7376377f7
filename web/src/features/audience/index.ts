export type { Audience } from './api/audiences'
export { BelongingGroups } from './view/BelongingGroups'
export { KeepWindow, NewCollectionWindow } from './view/later'
export { AudiencePicker } from './view/AudiencePicker'
