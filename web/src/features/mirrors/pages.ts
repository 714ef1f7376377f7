/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  MirrorsPage: () => import('./view/MirrorsPage').then(page => page.MirrorsPage),
}
