import vue from '@vitejs/plugin-vue';
import { defaultClientConditions, defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';
import { askAhead } from './askAhead.ts';

/** What the pages are installed as, and what of them lies on the device. Answers of the studio never lie in the worker’s cache. */
const offline = VitePWA({
  // A new version waits until whoever works here says so.
  registerType: 'prompt',
  injectRegister: false,
  manifest: {
    name: 'Jam Ledger',
    short_name: 'Jam Ledger',
    description: 'The ledger of a guitar lesson studio',
    start_url: '/',
    display: 'standalone',
    background_color: '#f7f2e6',
    theme_color: '#f7f2e6',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,png,woff2,wasm}', 'assets/{jam-music,dejavu}*.woff'],
    maximumFileSizeToCacheInBytes: 3_000_000,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    // Files are called by what they hold.
    dontCacheBustURLsMatching: /^assets\//,
    cleanupOutdatedCaches: true,
    sourcemap: false,
  },
});

export default defineConfig({
  // Text travels smaller: each file lies beside itself as brotli and as gzip.
  plugins: [
    vue(),
    offline,
    askAhead(),
    compression({ algorithms: ['brotliCompress', 'gzip'], include: /\.(?:js|css|html|svg|wasm|webmanifest)$/ }),
  ],
  resolve: { conditions: ['studio-src', ...defaultClientConditions] },
  worker: { format: 'es' },
  // While it is worked on, the pages come from here and the answers from the server that `bin/dev` started.
  server: { host: '127.0.0.1', proxy: { '/api': process.env['API_URL'] ?? 'http://127.0.0.1:4180' } },
  build: {
    assetsInlineLimit: 0,
    target: 'es2022',
    chunkSizeWarningLimit: 700,
    // Each file costs a slow line a way there and back: one of styles, smaller than the heads of forty, and one of what all tabs share.
    cssCodeSplit: false,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            {
              name: 'tab',
              test: /packages.core.src.(notation|pitch|fretboard|spoken|sound|form)|web.src.(tab|sound|playing)./,
              minShareCount: 5,
              includeDependenciesRecursively: false,
            },
          ],
        },
      },
    },
  },
});
