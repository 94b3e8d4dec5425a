import react from '@vitejs/plugin-react'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const at = (folder: string) => fileURLToPath(new URL(`./src/${folder}`, import.meta.url))

export default defineConfig({
  root: 'src/web',
  plugins: [react()],
  resolve: { alias: { '@core': at('core'), '@contract': at('contract'), '@web': at('web') } },
  build: { outDir: '../../dist/web', emptyOutDir: true, sourcemap: true },
  css: { preprocessorOptions: { scss: { quietDeps: true } } },
  server: { port: 5173, proxy: { '/api': 'http://127.0.0.1:8460' } },
})
