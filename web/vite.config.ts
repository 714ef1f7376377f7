import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react()],
  // The server puts a fresh value in its place at every answer.
  html: { cspNonce: '__NONCE__' },
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 1200 },
  test: { include: ['src/**/*.test.ts'] },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})
