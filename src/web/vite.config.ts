import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { target: 'es2024', chunkSizeWarningLimit: 900 },
  server: {
    proxy: Object.fromEntries(
      ['/api', '/openapi', '/schemas'].map((path) => [
        path,
        // The name that the page was opened by stays: the server lets in its own pages only.
        { target: `http://127.0.0.1:${process.env.TIN_RABBIT_PORT ?? 5170}`, changeOrigin: false },
      ]),
    ),
  },
  test: { setupFiles: ['../../tests/web/setup.ts'], testTimeout: 30_000 },
})
