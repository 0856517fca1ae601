import { defineConfig } from 'vitest/config';
import { LongFilesFirst } from './tests/server/long-files-first.ts';

export default defineConfig({
  test: {
    sequence: { sequencer: LongFilesFirst },
    // `npm test` leaves them out, `npm run test:all` does not.
    tags: [{ name: 'long', description: 'Plays a whole job, or goes through every case of something' }],
    projects: [
      {
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'standin/**/*.test.ts'],
          setupFiles: ['tests/fixtures/seed-properties.ts'],
          testTimeout: 60_000,
          // Loading the program anew for each file would take twice as long as all tests together.
          isolate: false,
        },
      },
      {
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          globalSetup: ['tests/server/seed-once.ts'],
          testTimeout: 300_000,
          hookTimeout: 240_000,
          maxWorkers: 2,
          // Every file has data of its own; loading the program anew for each would cost a fifth of the run.
          isolate: false,
        },
      },
    ],
  },
});
