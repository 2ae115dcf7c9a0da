import { defineConfig } from '@playwright/test';

/** Where what was found is left; each half of the stories has a place of its own. */
const results = process.env.EBBET_RESULTS ?? 'test-results/e2e';

/** End-to-end tests drive the built application in Debian's Chromium; the test command starts the servers. */
export default defineConfig({
  testDir: 'test/e2e',
  workers: 1,
  fullyParallel: false,
  timeout: 240_000,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: `${results}.json` }]],
  outputDir: results,
  use: {
    baseURL: process.env.EBBET_URL ?? 'http://127.0.0.1:4390',
    viewport: { width: 1280, height: 800 },
    actionTimeout: 30_000,
    launchOptions: {
      // the browser without its windows: a fifth less work for the same pages
      executablePath: '/usr/bin/chromium-headless-shell',
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
});
