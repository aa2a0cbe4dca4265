import { defineConfig } from 'vitest/config'

/** The tests that mutants.mjs names, for the mutation runner: it takes no projects. Seeded worlds are too slow for it. */
export default defineConfig({
  test: {
    include: (process.env.KAPELLE_MUTANTS ?? 'core/src/**/*.test.ts').split(';'),
    exclude: ['**/world.test.ts', '**/families.test.ts'],
    testTimeout: 120_000,
    env: { KAPELLE_FEW: '1' },
  },
})
