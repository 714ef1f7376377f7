export { useTitles } from './api/reach'
export { RungList } from './view/RungList'
