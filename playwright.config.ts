import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'tests',
  // Patient, since machines differ and no test is about speed.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  // What fails once and then passes is named at the end of the run, and is to be mended.
  retries: 1,
  fullyParallel: false,
  workers: 2,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'var/browser.json' }]],
  use: {
    baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:4600',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // What failed can be looked at step by step when it is tried again; watching every step takes a quarter of the time.
    trace: 'on-first-retry',
    // The checker of accessibility puts its script into the page.
    bypassCSP: false,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
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
