import react from '@vitejs/plugin-react'
import { realpathSync } from 'node:fs'
import { defineConfig } from 'vite'

const api = 'http://127.0.0.1:8000'

export default defineConfig({
  plugins: [react()],
  build: { chunkSizeWarningLimit: 1200, sourcemap: false, manifest: true },
  server: {
    port: 5173,
    proxy: { '/api': api, '/healthz': api },
    // The packages may lie outside the checkout, behind a link.
    fs: { allow: ['.', realpathSync('node_modules')] },
  },
})
