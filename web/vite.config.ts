import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const api = process.env['YONDER_API'] ?? 'http://127.0.0.1:4600';

export default defineConfig({
  plugins: [react()],
  worker: { format: 'es' },
  // HiGHS finds its WebAssembly by URL; bundling it beforehand would lose that.
  optimizeDeps: { exclude: ['highs'] },
  build: { target: 'es2022', chunkSizeWarningLimit: 700 },
  server: { host: '127.0.0.1', proxy: { '/api': api, '/devices': { target: api, ws: true } } },
});
