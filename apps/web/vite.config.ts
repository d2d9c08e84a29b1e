import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defaultClientConditions, defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { conditions: ['source', ...defaultClientConditions] },
  worker: { format: 'es', rolldownOptions: { checks: { bundlerTimings: false } } },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
    manifest: true,
    // Browsers that can run the page know it; others fetch a little later.
    modulePreload: { polyfill: false },
    // Else the bundler puts its own helpers beside it, and the first view fetches the whole of it for them.
    rolldownOptions: { checks: { bundlerTimings: false }, output: { codeSplitting: { groups: [{ name: 'csv', test: /papaparse/ }] } } },
  },
  server: {
    // Host stays what the page is served as: only its own page may change anything.
    proxy: { '/api': { target: `http://127.0.0.1:${process.env.API_PORT ?? 4600}`, changeOrigin: false } },
  },
});
