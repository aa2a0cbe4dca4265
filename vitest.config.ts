import { defineConfig } from 'vitest/config'
import vue from '@vitejs/plugin-vue'
import vuetify from 'vite-plugin-vuetify'

/** How long a test may take, ms: a busy machine is slow, not wrong; with every case it takes longer. */
const patience = process.env.KAPELLE_LONG === '1' ? 900_000 : 180_000

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/src/**/*.test.ts', 'demo/**/*.test.ts'],
          testTimeout: patience,
          // Nothing of the core is kept outside what it is given: reading all of it anew for every file took longer than its tests.
          isolate: false,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts'],
          globalSetup: ['server/src/testing/global.ts'],
          testTimeout: patience,
          hookTimeout: 240_000,
        },
      },
      {
        plugins: [vue(), vuetify({ autoImport: true })],
        define: { __BUILD__: JSON.stringify('test') },
        test: {
          name: 'web',
          include: ['web/src/**/*.test.ts'],
          environment: 'happy-dom',
          testTimeout: patience,
          // Each test opens a page of its own and closes it; the interface is read once for all.
          isolate: false,
          server: { deps: { inline: ['vuetify'] } },
        },
      },
    ],
  },
})
