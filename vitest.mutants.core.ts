import { defineConfig } from 'vitest/config'

/** The core's tests alone, for the mutation runner: it takes no projects. */
export default defineConfig({ test: { include: ['core/src/**/*.test.ts', 'demo/**/*.test.ts'] } })
