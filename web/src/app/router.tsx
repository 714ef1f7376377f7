import type { RouteObject } from 'react-router'
import { createBrowserRouter, Navigate } from 'react-router'
import { pages as catalogue } from '../features/catalogue/pages'
import { pages as audience } from '../features/audience/pages'
import { pages as reach } from '../features/reach/pages'
import { pages as fleet } from '../features/fleet/pages'
import { pages as mirrors } from '../features/mirrors/pages'
import { pages as shelf } from '../features/shelf/pages'
import { pages as trust } from '../features/trust/pages'
import { pages as today } from '../features/today/pages'
import { pages as windows } from '../features/windows/pages'
import { Missing } from './Missing'
import { PageFailed } from './PageFailed'

/** Each place is fetched when it is first gone to, and one that fails leaves the head and the draft as they are. */
function place(path: string, fetch: () => Promise<() => React.ReactNode>): RouteObject {
  return {
    path,
    lazy: async () => ({ Component: await fetch() }),
    errorElement: <PageFailed />,
    hydrateFallbackElement: <></>,
  }
}

/** What administrators see. */
const administrators: RouteObject = {
  lazy: async () => ({ Component: (await import('./Shell')).Shell }),
  hydrateFallbackElement: <></>,
  children: [
    { index: true, element: <Navigate to="/reach" replace /> },
    { path: 'sign-in', element: <Navigate to="/reach" replace /> },
    place('today', today.TodayPage),
    place('catalogue', catalogue.CataloguePage),
    place('catalogue/kits/:kit', catalogue.KitPage),
    place('catalogue/:title', catalogue.TitlePage),
    place('audiences/:target?', audience.AudiencePage),
    place('people/:person', audience.PersonPage),
    place('reach/:title?', reach.ReachPage),
    place('windows', windows.WindowsPage),
    place('trusted-roots', trust.TrustedRootsPage),
    place('mirrors/:mirror?', mirrors.MirrorsPage),
    place('fleet', fleet.FleetPage),
    place('fleet/:device', fleet.DevicePage),
    ...(import.meta.env.DEV
      ? [place('gallery', () => import('./gallery/GalleryPage').then(page => page.GalleryPage))]
      : []),
    { path: '*', element: <Missing /> },
  ],
}

export const router = createBrowserRouter([
  // People at the devices have a page of their own, without the places, keys and events of administrators.
  place('shelf', shelf.ShelfPage),
  {
    lazy: async () => ({ Component: (await import('./Frame')).Frame }),
    errorElement: <PageFailed />,
    hydrateFallbackElement: <></>,
    children: [administrators],
  },
])
