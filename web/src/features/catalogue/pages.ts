/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  CataloguePage: () => import('./view/CataloguePage').then(page => page.CataloguePage),
  KitPage: () => import('./view/KitPage').then(page => page.KitPage),
  TitlePage: () => import('./view/TitlePage').then(page => page.TitlePage),
}
