import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

const root = new URL('.', import.meta.url).pathname;

export default defineConfig({
  root,
  cacheDir: '../node_modules/.vite',
  plugins: [tailwindcss(), svelte()],
  build: { outDir: 'dist/app', emptyOutDir: true, target: 'es2023', assetsInlineLimit: 0, modulePreload: { polyfill: false } },
  server: { proxy: { '/api': 'http://127.0.0.1:8740' } },
  test: { include: ['src/**/*.test.ts'], environment: 'node' },
});
