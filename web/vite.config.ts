import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
  // The server puts a fresh value in its place at every answer.
  html: { cspNonce: '__NONCE__' },
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 1200 },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})
