export { WindowsPage } from './view/WindowsPage'
