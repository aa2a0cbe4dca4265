import { defineConfig } from 'vitest/config'
import vue from '@vitejs/plugin-vue'

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/src/**/*.test.ts', 'demo/**/*.test.ts'] } },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts'],
          globalSetup: ['server/src/testing/global.ts'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
      {
        plugins: [vue()],
        test: { name: 'web', include: ['web/src/**/*.test.ts'], environment: 'happy-dom' },
      },
    ],
  },
})
