export { MirrorsPage } from './view/MirrorsPage'
