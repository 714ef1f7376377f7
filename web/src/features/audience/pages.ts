/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  AudiencePage: () => import('./view/AudiencePage').then(page => page.AudiencePage),
  PersonPage: () => import('./view/PersonPage').then(page => page.PersonPage),
}
