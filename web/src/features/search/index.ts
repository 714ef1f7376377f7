export { SearchPalette } from './view/SearchPalette'
export { useSearch } from './api/search'
