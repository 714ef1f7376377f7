import { ChakraProvider } from '@chakra-ui/react'
import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { RouterProvider } from 'react-router'
import { isRefusal } from '../shared/api'
import { router } from './router'
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
          <RouterProvider router={router} useTransitions={false} />
        </QueryClientProvider>
      </ChakraProvider>
    </CacheProvider>
  )
}
