import { defineConfig } from 'vitest/config';
import { SlowFirst } from './test/fixtures/slowFirst.ts';

const ALL = [
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
];
/** Tests that kill, starve or fill something, and those that load pdfjs, which changes JSON for the whole process. */
const ALONE = [
  'test/faults/**/*.test.ts',
  'server/features/claims/cover/*.test.ts',
  'server/platform/outside/**/*.test.ts',
  'server/platform/helpers/*.test.ts',
  'server/platform/compute/*.test.ts',
];

/** Unit and API tests. API tests find their database in the environment the test command sets. */
export default defineConfig({
  test: {
    globalSetup: ['test/fixtures/templateDatabase.ts'],
    pool: 'forks',
    maxWorkers: 2,
    testTimeout: 180_000,
    hookTimeout: 300_000,
    sequence: { sequencer: SlowFirst },
    projects: [
      // loading the server anew for each of two hundred files took a third of the time
      { extends: true, test: { name: 'together', include: ALL, exclude: ALONE, isolate: false } },
      { extends: true, test: { name: 'alone', include: ALONE } },
    ],
  },
});
