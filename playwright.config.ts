import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests/browser',
  testMatch: '**/*.spec.ts',
  globalSetup: './tests/browser/stand.ts',
  // Two cores; each has an application of its own, see bench-page.ts.
  workers: 2,
  // In CI a test may be tried once more; npm test names those that needed it, and fails where they are not listed (tried-again.mjs).
  retries: process.env.CI ? 1 : 0,
  // For a test that hangs: machines differ, and a browser beside a render has its share of one core.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  outputDir: 'test-results',
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    // What moves on its way in is hit while it moves: on a loaded machine a press and its release met different rows.
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
        ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
      ],
    },
  },
})
