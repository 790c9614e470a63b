import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [vue()],
  test: { pool: 'threads', testTimeout: 60_000, include: (process.env.MUTATION_TESTS ?? '').split(';') },
});
