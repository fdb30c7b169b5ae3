import vue from '@vitejs/plugin-vue';
import { defaultClientConditions, defineConfig } from 'vite';

export default defineConfig({
  plugins: [vue()],
  resolve: { conditions: ['studio-src', ...defaultClientConditions] },
  worker: { format: 'es' },
  build: { assetsInlineLimit: 0, target: 'es2022', chunkSizeWarningLimit: 700 },
});
