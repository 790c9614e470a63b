import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';
import { WORKERS } from './server/threads/workers.ts';

const file = (name: string): string => fileURLToPath(new URL(name, import.meta.url));

/** The server and the command line as plain JavaScript; packages stay where they are installed. */
export default defineConfig({
  build: {
    ssr: true,
    outDir: file('./dist/server'),
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: {
        vivid: file('./cli/vivid.ts'),
        ...Object.fromEntries(Object.entries(WORKERS).map(([name, source]) => [name, file(`./${source}`)])),
      },
      // Measured only in development, with tools that are not part of the product.
      external: [/scripts\/bench/],
      output: { entryFileNames: '[name].js', chunkFileNames: 'parts/[name]-[hash].js' },
    },
  },
});
