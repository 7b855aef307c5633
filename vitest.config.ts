import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/src/**/*.test.ts', 'web/src/**/*.test.ts', 'server/src/**/*.test.ts', 'bin/**/*.test.ts'],
    setupFiles: ['bin/propertySeed.ts'],
    globalSetup: ['bin/mariadb/testDatabase.ts'],
    testTimeout: 30_000,
    hookTimeout: 90_000,
  },
});
