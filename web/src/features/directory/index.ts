export { DirectoryTrouble } from './view/DirectoryTrouble'
