/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  WindowsPage: () => import('./view/WindowsPage').then(page => page.WindowsPage),
}
