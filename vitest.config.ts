import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'unit', include: ['src/**/*.test.ts', 'standin/**/*.test.ts'], setupFiles: ['tests/fixtures/seed-properties.ts'] } },
      { test: { name: 'server', include: ['tests/server/**/*.test.ts'], globalSetup: ['tests/server/seed-once.ts'], testTimeout: 180_000, hookTimeout: 240_000, maxWorkers: 2 } },
    ],
  },
});
