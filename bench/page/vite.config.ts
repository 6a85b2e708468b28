import { defaultClientConditions, defineConfig } from 'vite';

export default defineConfig({
  root: import.meta.dirname,
  base: './',
  resolve: { conditions: ['@eskovan/source', ...defaultClientConditions] },
  build: { outDir: '../dist', emptyOutDir: true, target: 'es2022' },
});
