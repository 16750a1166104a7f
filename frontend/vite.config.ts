import vue from '@vitejs/plugin-vue';
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers';
import components from 'unplugin-vue-components/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [
    vue(),
    // Every El… tag of a template is imported where it stands, with its own styles; tests need no styles.
    components({
      dts: false,
      dirs: [],
      resolvers: [ElementPlusResolver({ importStyle: process.env.VITEST ? false : 'css' })],
    }),
  ],
  // A machine that does something else besides is slow, not wrong.
  test: { testTimeout: 30000 },
  // The documentation beside us is built in.
  server: { fs: { allow: ['..'] } },
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
