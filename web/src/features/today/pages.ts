/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  TodayPage: () => import('./view/TodayPage').then(page => page.TodayPage),
}
