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
    testTimeout: 60_000,
  },
})
