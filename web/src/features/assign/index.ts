export { assignAddress, ASSIGN_ADDRESS } from './model/address'
export { AssignSheet, AssignWindow, fetchAssignSheet } from './view/later'
export type { WrittenBody } from './api/assign'
