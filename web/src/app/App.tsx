import { ChakraProvider } from '@chakra-ui/react'
import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy } from 'react'
import { BrowserRouter, Navigate, Route, Routes } from 'react-router'
import { SessionGate } from '../features/session'
import { isRefusal } from '../shared/api'
import { KeysProvider } from '../shared/keys'
import { Missing } from './Missing'
import { PageBoundary } from './PageBoundary'
import { Shell } from './Shell'
import { system } from './theme'

// Each place is fetched when it is first gone to.
const CataloguePage = lazy(() => import('../features/catalogue').then(place => ({ default: place.CataloguePage })))
const TitlePage = lazy(() => import('../features/catalogue').then(place => ({ default: place.TitlePage })))
const KitPage = lazy(() => import('../features/catalogue').then(place => ({ default: place.KitPage })))
const ReachPage = lazy(() => import('../features/reach').then(place => ({ default: place.ReachPage })))
const FleetPage = lazy(() => import('../features/fleet').then(place => ({ default: place.FleetPage })))
const DevicePage = lazy(() => import('../features/fleet').then(place => ({ default: place.DevicePage })))
const MirrorsPage = lazy(() => import('../features/mirrors').then(place => ({ default: place.MirrorsPage })))
const WindowsPage = lazy(() => import('../features/windows').then(place => ({ default: place.WindowsPage })))

// The server lets in only style elements that carry this page's nonce.
const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce
const styles = createCache({ key: 'rivo', ...(nonce === undefined ? {} : { nonce }) })

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 60_000,
      retry: (count, error) => !isRefusal(error) && count < 3,
    },
  },
})

export function App() {
  return (
    <CacheProvider value={styles}>
      <ChakraProvider value={system}>
        <QueryClientProvider client={queries}>
          {/* What is chosen takes effect at once: the next key acts on it. */}
          <BrowserRouter useTransitions={false}>
            <SessionGate>
              <KeysProvider>
                <Shell>
                  <PageBoundary>
                    <Routes>
                      <Route path="/" element={<Navigate to="/reach" replace />} />
                      <Route path="/sign-in" element={<Navigate to="/reach" replace />} />
                      <Route path="/catalogue" element={<CataloguePage />} />
                      <Route path="/catalogue/kits/:kit" element={<KitPage />} />
                      <Route path="/catalogue/:title" element={<TitlePage />} />
                      <Route path="/reach" element={<ReachPage />} />
                      <Route path="/reach/:title" element={<ReachPage />} />
                      <Route path="/windows" element={<WindowsPage />} />
                      <Route path="/mirrors" element={<MirrorsPage />} />
                      <Route path="/mirrors/:mirror" element={<MirrorsPage />} />
                      <Route path="/fleet" element={<FleetPage />} />
                      <Route path="/fleet/:device" element={<DevicePage />} />
                      <Route path="*" element={<Missing />} />
                    </Routes>
                  </PageBoundary>
                </Shell>
              </KeysProvider>
            </SessionGate>
          </BrowserRouter>
        </QueryClientProvider>
      </ChakraProvider>
    </CacheProvider>
  )
}
