/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  ReachPage: () => import('./view/ReachPage').then(page => page.ReachPage),
}
