import vue from '@vitejs/plugin-vue'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import Components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

const at = (path: string) => new URL(path, import.meta.url).pathname

const WAIT_S = 3
/**
 * The bench goes on without the network. Everything built is kept; pages and what they were told come from the server while it answers.
 * It is only begun by the bench (`screens/bench/offline.ts`).
 */
const offline: Parameters<typeof VitePWA>[0] = {
  injectRegister: null,
  manifest: { name: 'Pan Count', short_name: 'Pan Count', start_url: '/bench', display: 'standalone', background_color: '#fcfbf7', theme_color: '#1e4478', icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' }] },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,woff2}'],
    navigateFallback: null,
    directoryIndex: null,
    skipWaiting: true,
    clientsClaim: true,
    cleanupOutdatedCaches: true,
    inlineWorkboxRuntime: true,
    runtimeCaching: [
      { urlPattern: ({ request }) => request.mode === 'navigate', handler: 'NetworkFirst', options: { cacheName: 'pages', networkTimeoutSeconds: WAIT_S, precacheFallback: { fallbackURL: 'index.html' } } },
      { urlPattern: ({ url, sameOrigin }) => sameOrigin && /^\/api\/(bench|reference|kitchen|bakes\/[0-9a-f-]{36})$/.test(url.pathname), handler: 'NetworkFirst', options: { cacheName: 'told', networkTimeoutSeconds: WAIT_S, expiration: { maxEntries: 40 } } },
    ],
  },
}

export default defineConfig({
  plugins: [vue(), Components({ dirs: [], dts: false, resolvers: [ElementPlusResolver()] }), VitePWA(offline)],
  // The fonts are shipped once, where the PDF needs them too.
  resolve: { alias: { '@': at('./src'), '@fonts': at('../src/pancount/formats/templates/fonts') } },
  server: { proxy: { '/api': 'http://127.0.0.1:8137' }, fs: { allow: ['..'] } },
  build: { target: 'es2022', reportCompressedSize: false },
})
