import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [vue()],
  base: '/build/',
  publicDir: false,
  build: {
    outDir: '../public/build',
    emptyOutDir: true,
    manifest: true,
    chunkSizeWarningLimit: 900,
    rolldownOptions: { input: 'src/main.ts' },
  },
});
