import { ChakraProvider } from '@chakra-ui/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { createBrowserRouter, RouterProvider } from 'react-router'
import { vi } from 'vitest'
import { system } from '../app/theme'
import { KeysProvider } from '../shared/keys'

/** Draws a part as it stands in the application: with its theme, its router, its keys, and what was asked for. */
export function draw(part: ReactNode) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const router = createBrowserRouter([{ path: '*', element: <KeysProvider>{part}</KeysProvider> }])
  const drawn = render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} useTransitions={false} />
      </QueryClientProvider>
    </ChakraProvider>,
  )
  return { ...drawn, router, queries }
}

/** Stands in for the server. @param answer what it answers, by the address that it is asked at */
export function answering(answer: (url: string, body: unknown) => unknown) {
  const fetched = vi.fn((url: string, init?: RequestInit) => {
    const body: unknown = typeof init?.body === 'string' ? JSON.parse(init.body) : undefined
    return Promise.resolve(new Response(JSON.stringify(answer(url, body)), { status: 200 }))
  })
  vi.stubGlobal('fetch', fetched)
  return fetched
}
