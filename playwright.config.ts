import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './e2e/browser';

const PORT = Number(process.env.PORT ?? 3177);

export default defineConfig({
  testDir: './e2e',
  fullyParallel: false,
  // Files run side by side, the tests of one after each other.
  workers: 2,
  // Under `bin/test`, a sample of the stories; all of them under `bin/test --full`, and where one is asked for by its
  // name.
  grepInvert: process.env.CI && !process.env.HOLVET_FULL ? /@whole/ : undefined,
  timeout: 120_000,
  // A machine under load takes its time; what must come, comes.
  expect: { timeout: 15_000 },
  retries: 0,
  outputDir: 'test-results',
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // Each story begins as a first visit; what works without a network has a story of its own.
    serviceWorkers: 'block',
    trace: 'off',
    launchOptions: {
      executablePath: CHROMIUM,
      headless: true,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: `node node_modules/next/dist/bin/next start -H 127.0.0.1 -p ${PORT}`,
    url: `http://127.0.0.1:${PORT}`,
    reuseExistingServer: !process.env.CI,
    timeout: 60_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
});
