import { readFileSync } from 'node:fs';
import { defineConfig } from 'vite';

const USED = ['three', '3d-tiles-renderer'];

/** The viewer of published clouds: one plain script, for a module is not loaded from a disk, and the licenses of what is in it. */
export default defineConfig({
  base: './',
  publicDir: false,
  plugins: [
    {
      name: 'licenses',
      generateBundle() {
        const text = USED.map((name) => `${name}\n\n${readFileSync(`node_modules/${name}/LICENSE`, 'utf8')}`).join('\n\n');
        this.emitFile({ type: 'asset', fileName: 'licenses.txt', source: text });
      },
    },
  ],
  build: {
    outDir: '../public/build/viewer',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1200,
    lib: { entry: 'src/viewer/main.ts', formats: ['iife'], name: 'viewer', fileName: () => 'viewer.js' },
  },
});
