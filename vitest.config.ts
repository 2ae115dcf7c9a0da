import { defineConfig } from 'vitest/config';
import { SlowFirst } from './test/fixtures/slowFirst.ts';

/** Unit and API tests. API tests find their database in the environment the test command sets. */
export default defineConfig({
  test: {
    include: [
      'core/**/*.test.ts',
      'contract/**/*.test.ts',
      'cli/**/*.test.ts',
      'server/**/*.test.ts',
      'web/**/*.test.ts',
      'demo/**/*.test.ts',
      'test/reference/**/*.test.ts',
      'test/properties/**/*.test.ts',
      'test/faults/**/*.test.ts',
      'test/mutations/**/*.test.ts',
    ],
    globalSetup: ['test/fixtures/templateDatabase.ts'],
    pool: 'forks',
    maxWorkers: 2,
    sequence: { sequencer: SlowFirst },
    testTimeout: 180_000,
    hookTimeout: 300_000,
  },
});
