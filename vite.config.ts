import vue from '@vitejs/plugin-vue';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';
import vuetify from 'vite-plugin-vuetify';

const folder = (name: string): string => fileURLToPath(new URL(name, import.meta.url));

export default defineConfig({
  root: folder('./web'),
  plugins: [vue(), vuetify({ autoImport: true })],
  build: { outDir: folder('./dist/web'), emptyOutDir: true, target: 'es2022', assetsInlineLimit: 0 },
  server: { port: 4175, proxy: { '/api': { target: `http://localhost:${process.env.PORT ?? 4174}` } } },
});
