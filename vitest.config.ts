import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: [
      'core/**/*.test.ts',
      'app/**/*.test.ts',
      'cli/**/*.test.ts',
      'server/**/*.test.ts',
      'tests/unit/**/*.test.ts',
    ],
    setupFiles: ['tests/fixtures/seed.ts'],
    // One for each processor: left to itself the runner keeps one of two free.
    maxWorkers: '100%',
    testTimeout: 60_000,
  },
})
