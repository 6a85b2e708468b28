import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defaultClientConditions, defineConfig } from 'vite';

const noNode = fileURLToPath(new URL('src/worker/no-node.ts', import.meta.url));

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: {
    conditions: ['@eskovan/source', ...defaultClientConditions],
    alias: { fs: noNode, path: noNode, 'node:fs': noNode, 'node:path': noNode },
  },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    sourcemap: true,
    chunkSizeWarningLimit: 900,
    rollupOptions: { input: { studio: 'index.html', review: 'review.html' } },
  },
  server: { port: 5173, proxy: { '/api': 'http://localhost:5170' } },
});
