export { SearchPalette } from './view/SearchPalette'
