import react from '@vitejs/plugin-react'
import { loadEnv } from 'vite'
import { defineConfig } from 'vitest/config'

export default defineConfig(({ mode }) => ({
  plugins: [react()],
  // The server puts a fresh value in its place at every answer.
  html: { cspNonce: '__NONCE__' },
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 1200 },
  test: {
    include: ['src/**/*.test.{ts,tsx}', 'lint/*.test.js'],
    setupFiles: ['./src/testing/setUp.ts'],
    isolate: false,
    testTimeout: 30_000,
    hookTimeout: 60_000,
    unstubGlobals: true,
  },
  // Where the running server is that the front end is tried out with (./rivo dev).
  server: {
    fs: { allow: ['..'] },
    proxy: { '/api': loadEnv(mode, '.', 'RIVO_')['RIVO_URL'] ?? 'http://127.0.0.1:8080' },
  },
}))
