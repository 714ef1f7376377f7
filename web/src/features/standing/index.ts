export { useStates } from './api/states'
export { stateWords } from './model/states'
export { Standing, StandingPart } from './view/StandingPart'
