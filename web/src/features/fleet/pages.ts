/** The pages of this feature, each fetched when it is first gone to. */
export const pages = {
  FleetPage: () => import('./view/FleetPage').then(page => page.FleetPage),
  DevicePage: () => import('./view/DevicePage').then(page => page.DevicePage),
}
