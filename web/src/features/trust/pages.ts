/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  TrustedRootsPage: () => import('./view/TrustedRootsPage').then(page => page.TrustedRootsPage),
}
