import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const api = process.env.LISTO_API;

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 700 },
  server: api
    ? { proxy: { '/api': { target: api, changeOrigin: false }, '/healthz': api, '/readyz': api } }
    : {},
});
