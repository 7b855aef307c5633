import { defineConfig } from '@playwright/test';
import { ensureBrowser } from './bin/debianPackages.ts';

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/serveForTests.ts',
  // One more than two cores: a browser that waits for an answer leaves its core to another.
  workers: 3,
  fullyParallel: true,
  timeout: 90_000,
  // Three browsers, a server and a database share what may be two slow cores.
  expect: { timeout: 15_000 },
  reporter: process.env.CADENZA_E2E_JSON ? [['json', { outputFile: process.env.CADENZA_E2E_JSON }], ['line']] : 'line',
  outputDir: 'test-results',
  // The longest come first, so that no worker is left with one of them at the end. Setting a shop aside takes everything away from everybody: it is tried when nobody else is there.
  projects: [
    { name: 'views', testMatch: '**/views.spec.ts' },
    { name: 'together', testIgnore: ['**/views.spec.ts', '**/setup.spec.ts'] },
    { name: 'alone', testMatch: '**/setup.spec.ts', dependencies: ['views', 'together'] },
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    // What goes through a service worker cannot be held back by a test; those about it let it in.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: ensureBrowser(),
      args: [
        // Like the tests' own engine (bin/engineFlags.ts): a page lives for seconds, and making its code faster costs more than it brings.
        '--js-flags=--invocation-count-for-turbofan=60000 --invocation-count-for-osr=10000 --invocation-count-for-maglev=4000 --invocation-count-for-maglev-osr=1000',
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
});
