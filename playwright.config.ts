import { defineConfig } from '@playwright/test'

const longest = ['zones.spec.ts', 'own-equipment.spec.ts']

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Each with a product of its own; a page, the server and the database seldom work at the same time.
  workers: 2,
  // Each takes longest by itself: begun first, they do not come last alone.
  projects: [
    { name: 'longest', testMatch: longest },
    { name: 'others', testIgnore: longest },
  ],
  timeout: 600_000,
  // A busy machine is slow, not wrong: what is waited for comes, or never does.
  expect: { timeout: 45_000 },
  reporter: 'list',
  use: {
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    actionTimeout: 45_000,
    // What moves is drawn a dozen times, and waited for, at each choice.
    contextOptions: { reducedMotion: 'reduce' },
    // A trace copies the whole page before and after each act, a quarter of all work: only where somebody looks for something.
    trace: process.env.KAPELLE_TRACE === '1' ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
