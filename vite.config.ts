import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** The web application: built into build/web; in development the API is the server the start command runs. */
export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  build: { outDir: '../build/web', emptyOutDir: true, assetsInlineLimit: 0 },
  worker: { format: 'es' },
  server: { proxy: { '/api': { target: process.env.EBBET_API ?? 'http://127.0.0.1:4301', changeOrigin: false } } },
});
