import { ChakraProvider } from '@chakra-ui/react'
import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { BrowserRouter, Navigate, Route, Routes } from 'react-router'
import { CataloguePage, KitPage, TitlePage } from '../features/catalogue'
import { DevicePage, FleetPage } from '../features/fleet'
import { MirrorsPage } from '../features/mirrors'
import { ReachPage } from '../features/reach'
import { SessionGate } from '../features/session'
import { WindowsPage } from '../features/windows'
import { isRefusal } from '../shared/api'
import { KeysProvider } from '../shared/keys'
import { Missing } from './Missing'
import { Shell } from './Shell'
import { system } from './theme'

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
                </Shell>
              </KeysProvider>
            </SessionGate>
          </BrowserRouter>
        </QueryClientProvider>
      </ChakraProvider>
    </CacheProvider>
  )
}
