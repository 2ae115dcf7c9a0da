import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';
import { SlowFirst } from './test/fixtures/slowFirst.ts';

const bundled = fileURLToPath(new URL('build/test/application.mjs', import.meta.url));

/** Unit and API tests. API tests find their database in the environment the test command sets. */
export default defineConfig({
  resolve: { alias: [{ find: /^.*\/application\.ts$/, replacement: bundled }] },
  test: {
    server: { deps: { external: [bundled] } },
    include: [
      'core/**/*.test.ts',
      'contract/**/*.test.ts',
      'cli/**/*.test.ts',
      'server/**/*.test.ts',
      'web/**/*.test.{ts,tsx}',
      'demo/**/*.test.ts',
      'test/reference/**/*.test.ts',
      'test/properties/**/*.test.ts',
      'test/faults/**/*.test.ts',
      'test/mutations/**/*.test.ts',
    ],
    globalSetup: ['test/fixtures/bundleServer.ts', 'test/fixtures/templateDatabase.ts'],
    pool: 'forks',
    maxWorkers: 2,
    sequence: { sequencer: SlowFirst },
    testTimeout: 180_000,
    hookTimeout: 300_000,
  },
});
