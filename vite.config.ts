import react from '@vitejs/plugin-react'
import { fileURLToPath } from 'node:url'
import { defineConfig, type Plugin } from 'vite'
import { readFileSync } from 'node:fs'
import { VitePWA } from 'vite-plugin-pwa'
import { boothPattern } from './src/web/offline/answers.ts'
import { SECTIONS } from './src/web/sections/sections.ts'

const at = (folder: string) => fileURLToPath(new URL(`./src/${folder}`, import.meta.url))

const DAYS_14_S = 14 * 24 * 3600
const offline = VitePWA({
  registerType: 'autoUpdate',
  injectRegister: 'script-defer',
  manifest: {
    name: 'Idle Spool',
    short_name: 'Idle Spool',
    description: 'Keeps wire-feed guns running',
    theme_color: '#1e2225',
    background_color: '#1e2225',
    display: 'standalone',
    icons: [{ src: '/wire.svg', sizes: 'any', type: 'image/svg+xml' }],
  },
  workbox: {
    // The first page that is opened works without a link as well, and a new version takes over at once.
    clientsClaim: true,
    skipWaiting: true,
    cleanupOutdatedCaches: true,
    globPatterns: ['**/*.{js,css,html,svg,woff2}'],
    maximumFileSizeToCacheInBytes: 4_000_000,
    navigateFallbackDenylist: [/^\/api/],
    runtimeCaching: [
      {
        urlPattern: new RegExp(`^https?://[^/]+${boothPattern}`),
        handler: 'NetworkFirst',
        options: {
          cacheName: 'answers',
          networkTimeoutSeconds: 4,
          expiration: { maxEntries: 4000, maxAgeSeconds: DAYS_14_S },
          cacheableResponse: { statuses: [200] },
        },
      },
    ],
  },
})

/** The frame is drawn from the page itself; the theme's rules stand behind it, so that it does not wait for them. */
const frameFirst: Plugin = {
  name: 'frame-first',
  transformIndexHtml: {
    order: 'post',
    handler: (html) => {
      const links = html.match(/ *<link rel="stylesheet"[^>]*>\n/g) ?? []
      const sections = SECTIONS.map((s) => `<span>${s.name}</span>`).join('')
      const theme = readFileSync(at('web/frame/first.js'), 'utf8').trim()
      const style = readFileSync(at('web/frame/first.css'), 'utf8')
        .replace(/\/\*.*?\*\//gs, '')
        .replace(/\s+/g, ' ')
      return links
        .reduce((text, link) => text.replace(link, ''), html)
        .replace('<!--sections-->', sections)
        .replace('<!--theme-->', `<script>${theme}</script>`)
        .replace('</head>', `  <style>${style}</style>\n  </head>`)
        .replace('</body>', `${links.join('')}  </body>`)
    },
  },
}

export default defineConfig({
  root: 'src/web',
  plugins: [react(), offline, frameFirst],
  resolve: { alias: { '@core': at('core'), '@contract': at('contract'), '@web': at('web') } },
  build: {
    outDir: '../../dist/web',
    emptyOutDir: true,
    sourcemap: true,
    chunkSizeWarningLimit: 1000,
    rolldownOptions: {
      // All that is wanted before the first screen in one piece: over a slow link thirty small ones are thirty waits.
      output: { codeSplitting: { groups: [{ name: 'first', tags: ['$initial'] }] } },
    },
  },
  css: { preprocessorOptions: { scss: { quietDeps: true, silenceDeprecations: ['import'] } } },
  server: { port: 5173, proxy: { '/api': 'http://127.0.0.1:8460' } },
})
