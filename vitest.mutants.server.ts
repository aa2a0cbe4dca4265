import { defineConfig } from 'vitest/config'

/** The server's tests alone, on their database, for the mutation runner. */
export default defineConfig({
  test: {
    include: ['server/src/**/*.test.ts'],
    exclude: ['**/kill.test.ts', '**/lock.test.ts'],
    globalSetup: ['server/src/testing/global.ts'],
    testTimeout: 60_000,
    hookTimeout: 120_000,
  },
})
