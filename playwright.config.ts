import { defineConfig } from '@playwright/test'
import { BROWSER } from './e2e/browser.ts'

const LONG = /\/(sizes|standin|life|offline|firsthour)\.spec\.ts$/

/** Journeys of a person, each file on a server and database of its own. */
export default defineConfig({
  testDir: 'e2e',
  // Long: a machine that others share may stand still for seconds, and nothing here is about speed.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  // Two cores: while one page waits for its server the other works. Three get into each other’s way and take longer.
  workers: 2,
  // Those that take longest begin, so that no worker is left alone with one at the end.
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'others', testIgnore: LONG },
  ],
  // On a machine that others share a page may miss its moment once: tried again on a fresh server, and npm test names each that needed it.
  retries: 1,
  forbidOnly: true,
  outputDir: 'test-results',
  use: {
    browserName: 'chromium',
    colorScheme: 'dark',
    // Journeys that cut the link by hand would have the worker answer for it; those about it let it in.
    serviceWorkers: 'block',
    actionTimeout: 25_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: BROWSER,
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
})
