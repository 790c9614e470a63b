import vue from '@vitejs/plugin-vue';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { defineConfig, type TestProjectConfiguration } from 'vitest/config';

const WEB = 'web/**/*.test.ts';

/** Tests that put something in the place of a module, or keep things in a browser's store, are each in a world of their own. */
const apart = readdirSync(path.join(import.meta.dirname, 'web'), { encoding: 'utf8', recursive: true })
  .filter((file) => file.endsWith('.test.ts'))
  .map((file) => `web/${file}`)
  .filter((file) => /vi\.mock\(|fake-indexeddb/.test(readFileSync(path.join(import.meta.dirname, file), 'utf8')));

const project = (name: string, test: object): TestProjectConfiguration => ({ extends: true, test: { name, ...test } });

export default defineConfig({
  plugins: [vue()],
  test: {
    pool: 'threads',
    isolate: false,
    // Nothing is told by how long a test takes: on a busy machine listening takes many times as long.
    testTimeout: 90_000,
    hookTimeout: 120_000,
    server: { deps: { inline: ['vuetify'] } },
    projects: [
      project('core', { include: ['{core,contract}/**/*.test.ts'] }),
      project('server', {
        include: ['{server,cli,demo,scripts}/**/*.test.ts'],
        globalSetup: ['server/testing/database-servers.ts', 'scripts/build-server.mjs'],
        env: { VIVID_THREADS: 'built' },
      }),
      project('web', { include: [WEB], exclude: apart, setupFiles: ['web/testing/own-globals.ts'] }),
      project('web apart', { include: apart, isolate: true }),
    ],
  },
});
