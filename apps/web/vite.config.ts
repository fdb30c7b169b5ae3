import vue from '@vitejs/plugin-vue';
import { defaultClientConditions, defineConfig } from 'vite';

export default defineConfig({
  plugins: [vue()],
  resolve: { conditions: ['studio-src', ...defaultClientConditions] },
  worker: { format: 'es' },
  // While it is worked on, the pages come from here and the answers from the server that `bin/dev` started.
  server: { host: '127.0.0.1', proxy: { '/api': process.env['API_URL'] ?? 'http://127.0.0.1:4180' } },
  build: { assetsInlineLimit: 0, target: 'es2022', chunkSizeWarningLimit: 700 },
});
