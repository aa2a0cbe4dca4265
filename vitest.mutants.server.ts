import { defineConfig } from 'vitest/config'

/** The server's tests that mutants.mjs names, on their database, for the mutation runner. */
export default defineConfig({
  test: {
    include: (process.env.KAPELLE_MUTANTS ?? 'server/src/**/*.test.ts').split(';'),
    exclude: ['**/kill.test.ts', '**/lock.test.ts'],
    globalSetup: ['server/src/testing/global.ts'],
    testTimeout: 120_000,
    hookTimeout: 240_000,
  },
})
