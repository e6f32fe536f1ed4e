import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';

const root = new URL('.', import.meta.url).pathname;

// Which packages went into the interface: scripts/notices.mjs gathers their licences.
const bundled = (): Plugin => ({
  name: 'bundled',
  generateBundle(_, files) {
    const names = new Set(['tailwindcss', 'flowbite']); // style sheets alone
    for (const file of Object.values(files)) {
      for (const id of file.type === 'chunk' ? Object.keys(file.modules) : file.originalFileNames) {
        const name = /node_modules\/((?:@[^/]+\/)?[^/]+)\//.exec(id)?.[1];
        if (name) names.add(name);
      }
    }
    this.emitFile({ type: 'asset', fileName: 'packages.json', source: JSON.stringify([...names].sort()) });
  },
});

export default defineConfig({
  root,
  cacheDir: '../node_modules/.vite',
  plugins: [tailwindcss(), svelte(), bundled()],
  build: {
    outDir: 'dist/app',
    emptyOutDir: true,
    target: 'es2023',
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8740', '/demo/api': 'http://127.0.0.1:8740' } },
  test: { include: ['src/**/*.test.ts'], environment: 'node' },
});
