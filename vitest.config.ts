import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // Both of two cores: much of the time is spent waiting for a database.
    maxWorkers: Math.max(2, availableParallelism()),
    include: ['core/src/**/*.test.ts', 'web/src/**/*.test.ts', 'server/src/**/*.test.ts', 'bin/**/*.test.ts'],
    setupFiles: ['bin/propertySeed.ts'],
    globalSetup: ['bin/mariadb/testDatabase.ts'],
    // A test that hangs ends; how long one takes on a slow machine decides nothing.
    testTimeout: 180_000,
    hookTimeout: 90_000,
  },
});
