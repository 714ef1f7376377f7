export { useTitles } from './api/reach'
export { ReachPage } from './view/ReachPage'
export { RungList } from './view/RungList'
