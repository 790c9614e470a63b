import { defineConfig } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { existsSync } from 'node:fs';

const executablePath = [
  process.env.CHROMIUM,
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
].find((file) => file && existsSync(file));
const speech = fileURLToPath(new URL('./e2e/speech.wav', import.meta.url));

export const FAKE_MICROPHONE = [
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
  `--use-file-for-fake-audio-capture=${speech}`,
];

export default defineConfig({
  testDir: './e2e',
  globalSetup: './e2e/prepare.ts',
  outputDir: './test-results',
  // How long something may hang, not how quick it should be: `vivid bench` says that.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  workers: 2,
  // A busy CI machine may miss a moment once; the list says which tests needed a second try.
  retries: process.env.CI ? 1 : 0,
  fullyParallel: false,
  reporter: [['list'], ['json', { outputFile: './test-results/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
    launchOptions: {
      ...(executablePath && { executablePath }),
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        ...FAKE_MICROPHONE,
      ],
    },
    actionTimeout: 30_000,
    screenshot: 'only-on-failure',
  },
});
