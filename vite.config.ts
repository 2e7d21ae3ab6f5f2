import { reactRouter } from '@react-router/dev/vite'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [tailwindcss(), reactRouter()],
  worker: { format: 'es' },
  // Fonts stay files: the policy allows them from our own address only.
  build: { target: 'es2022', assetsInlineLimit: 0 },
  optimizeDeps: { entries: ['app/**/*.{ts,tsx}', 'core/**/*.ts'] },
  server: { host: '127.0.0.1' },
})
