export { CataloguePage } from './view/CataloguePage'
export { TitlePage } from './view/TitlePage'
