import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';
import { COMPUTED_ONCE } from './bin/engineFlags.ts';

// A test that hangs ends; how long one takes on a slow machine decides nothing.
const ways = { testTimeout: 180_000, hookTimeout: 180_000, execArgv: COMPUTED_ONCE };

export default defineConfig({
  test: {
    // One more than there are cores: much of the time is spent waiting for databases and processes.
    maxWorkers: availableParallelism() + 1,
    projects: [
      {
        test: {
          ...ways,
          name: 'computed',
          // Nothing is kept from one to the next, so that what they share is loaded once.
          isolate: false,
          include: ['core/src/**/*.test.ts', 'web/src/**/*.test.ts'],
          setupFiles: ['bin/propertySeed.ts'],
        },
      },
      {
        test: {
          ...ways,
          // Parts of the interface in a document without a browser: what fields say and hand on.
          name: 'shown',
          isolate: false,
          environment: 'jsdom',
          include: ['web/src/**/*.test.tsx'],
          setupFiles: ['bin/propertySeed.ts', 'web/src/documentForTests.ts'],
        },
      },
      {
        test: {
          ...ways,
          name: 'stored',
          isolate: false,
          include: ['server/src/**/*.test.ts', 'bin/**/*.test.ts'],
          setupFiles: ['bin/propertySeed.ts'],
          globalSetup: ['bin/mariadb/testDatabase.ts'],
        },
      },
    ],
  },
});
