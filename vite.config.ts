import vue from '@vitejs/plugin-vue';
import { cpSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig, type Plugin } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';
import vuetify from 'vite-plugin-vuetify';
import { keepPrevious } from './scripts/keep-previous.ts';

const folder = (name: string): string => fileURLToPath(new URL(name, import.meta.url));

/** What PDF pages are drawn with besides code: character maps, standard fonts, picture decoders and colour profiles. */
function pdfAssets(): Plugin {
  const from = path.dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
  const parts = ['cmaps', 'standard_fonts', 'wasm', 'iccs'];
  return {
    name: 'pdf-assets',
    configureServer: ({ middlewares }) => {
      middlewares.use('/pdf', (request, response, next) => {
        const [part, name] = (request.url ?? '').split('?')[0]!.split('/').slice(1);
        if (!part || !name || !parts.includes(part)) return next();
        void import('node:fs').then(({ createReadStream }) =>
          createReadStream(path.join(from, part, path.basename(name)))
            .on('error', () => next())
            .pipe(response),
        );
      });
    },
    closeBundle: () => {
      for (const part of parts) cpSync(path.join(from, part), folder(`./dist/web/pdf/${part}`), { recursive: true });
    },
  };
}

/** The app on the home screen of a phone, and the worker that lets returned work be heard again without a network. */
const homeScreen = VitePWA({
  strategies: 'injectManifest',
  srcDir: 'offline',
  filename: 'worker.ts',
  injectRegister: false,
  // Files are kept as they are used: nobody downloads the desk to hear a remark.
  injectManifest: { injectionPoint: undefined as never, rollupFormat: 'iife' },
  manifest: {
    ...{ name: 'Vivid Margin', short_name: 'Vivid Margin', description: 'Your work, and what was said about it.' },
    ...{ id: '/', start_url: '/', display: 'standalone', background_color: '#ECE7DD', theme_color: '#ECE7DD' },
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
});

/** Packed once, as well as it can be done, so that nobody waits for it to be packed. */
const packed = compression({
  include: /\.(js|mjs|css|html|svg|json|webmanifest)$/,
  threshold: 1024,
  algorithms: [defineAlgorithm('brotliCompress'), defineAlgorithm('gzip', { level: 9 })],
});

export default defineConfig({
  // Components are written with script setup, so the other half of Vue can stay away.
  define: { __VUE_OPTIONS_API__: false },
  root: folder('./web'),
  plugins: [vue(), vuetify({ autoImport: true }), pdfAssets(), homeScreen, packed, keepPrevious(folder('./dist/web'))],
  build: {
    outDir: folder('./dist/web'),
    // `keepPrevious` takes away what is old.
    emptyOutDir: false,
    target: 'es2022',
    assetsInlineLimit: 0,
    // What every page needs is one file, so that it is packed well and asked for once.
    rolldownOptions: {
      checks: { pluginTimings: false },
      output: { codeSplitting: { groups: [{ name: 'vue', test: /node_modules\/(vue|@vue|pinia|vue-router)\// }] } },
    },
  },
  worker: { format: 'es' },
  server: { port: 4175, proxy: { '/api': { target: `http://localhost:${process.env.PORT ?? 4174}` } } },
});
