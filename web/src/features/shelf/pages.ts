/** Fetched when it is first gone to. */
export const pages = {
  ShelfPage: () => import('./view/ShelfPage').then(page => page.ShelfPage),
}
