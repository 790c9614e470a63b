import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [vue()],
  test: {
    include: ['{core,contract,server,cli,web,demo,scripts}/**/*.test.ts'],
    globalSetup: ['server/testing/postgres-server.ts'],
    testTimeout: 20_000,
    hookTimeout: 60_000,
    server: { deps: { inline: ['vuetify'] } },
  },
});
