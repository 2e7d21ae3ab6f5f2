import { defineConfig } from '@playwright/test'
import { launchOptions } from './tests/fixtures/chromium.ts'

const port = 4471

/** End-to-end and reference tests: the production build, Debian's Chromium, one address of this machine. */
export default defineConfig({
  testDir: 'tests',
  testMatch: ['e2e/**/*.spec.ts', 'reference/**/*.spec.ts'],
  timeout: 240_000,
  expect: { timeout: 20_000 },
  workers: 2,
  // Each test has a browser profile of its own: neither process waits at the end for a long file.
  fullyParallel: true,
  reporter: process.env.KEEN_QUILL_REPORT
    ? [['list'], ['json', { outputFile: process.env.KEEN_QUILL_REPORT }]]
    : 'list',
  outputDir: 'test-results',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // What never comes says so in a minute.
    actionTimeout: 60_000,
    launchOptions,
    // Each test has a profile of its own, which would keep the whole application first; offline.spec.ts has it kept.
    serviceWorkers: 'block',
  },
  webServer: {
    command: 'node --import tsx server/main.ts',
    url: `http://127.0.0.1:${port}/about`,
    env: { PORT: String(port), KEEN_QUILL_DEMO: '1', NODE_ENV: 'production' },
    reuseExistingServer: false,
  },
})
