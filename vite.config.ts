import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/**
 * Styles that react-zoom-pan-pinch would write into the page as it is loaded stand in app.css: the content policy allows no
 * style without the nonce of the answer, which the package does not know.
 */
const withoutInjectedStyles: Plugin = {
  name: 'without-injected-styles',
  transform: (code, id) =>
    id.includes('react-zoom-pan-pinch') ? code.replace('styleInject(css_248z);', '') : undefined,
};

/** The web application: built into build/web; in development the API is the server the start command runs. */
export default defineConfig({
  root: 'web',
  // the server writes one nonce for each answer in its place
  html: { cspNonce: 'EBBET_NONCE' },
  plugins: [react(), tailwindcss(), withoutInjectedStyles],
  build: { outDir: '../build/web', emptyOutDir: true, assetsInlineLimit: 0 },
  worker: { format: 'es' },
  // the calls of the page are sources under the same name as the server's addresses
  server: {
    proxy: {
      '^/api/(?!.*\\.tsx?(\\?|$))': { target: process.env.EBBET_API ?? 'http://127.0.0.1:4301', changeOrigin: false },
    },
  },
});
