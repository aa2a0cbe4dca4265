import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'
import vue from '@vitejs/plugin-vue'
import vuetify from 'vite-plugin-vuetify'

/** How long a test may take, ms: a busy machine is slow, not wrong; with every case it takes longer. */
const patience = process.env.KAPELLE_LONG === '1' ? 900_000 : 180_000

/** Files that take half a minute and more, longest first: begun last, one would keep one core while the others stand still. */
const longest = [
  ...['draft/at-panel', 'panel/route', 'panel/machine', 'panel/audit', 'panel/lost', 'panel/sheet'],
  ...['launch/product', 'db/builds', 'jobs/kill', 'launch/commands', 'jobs/load', 'db/backup'],
]

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = ({ moduleId }: TestSpecification): number => {
      const at = longest.findIndex((name) => moduleId.endsWith(`/${name}.test.ts`))
      return at < 0 ? longest.length : at
    }
    return (await super.sort(files)).toSorted((a, b) => rank(a) - rank(b))
  }
}

export default defineConfig({
  test: {
    // Left alone, a run of all leaves one core idle.
    maxWorkers: '100%',
    sequence: { sequencer: LongestFirst },
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
