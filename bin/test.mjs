// npm test: lint, types, unit, API and end-to-end tests on databases of their own, then one line with the sum.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { endToEnd } from './e2e.mjs';
import { databaseUrls } from './lib/database.mjs';
import { ensureDebianPackages, ensureNodePackages } from './lib/packages.mjs';
import { bin, main, RESULTS, runAsync, say } from './lib/project.mjs';

await main(async () => {
  ensureNodePackages();
  ensureDebianPackages('postgresql', 'chromium-headless-shell');
  rmSync(RESULTS, { recursive: true, force: true });
  mkdirSync(RESULTS, { recursive: true });
  for (const given of ['DATABASE_OWNER_URL', 'DATABASE_APP_URL', 'DATABASE_URL']) delete process.env[given];
  const { lint } = await import('./lint.mjs');
  const counts = [await lint()];
  const database = await databaseUrls('test', { fresh: true, durable: false });
  try {
    counts.push(await unitTests(database.env));
  } finally {
    database.stop();
  }
  counts.push(await endToEnd());
  const sum = (key) => counts.reduce((a, c) => a + c[key], 0);
  say(`${sum('passed')} passed, ${sum('failed')} failed`);
  return sum('failed') > 0 ? 1 : 0;
});

async function unitTests(env) {
  const file = join(RESULTS, 'unit.json');
  const code = await runAsync(
    bin('vitest'),
    ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${file}`],
    { env },
  );
  if (!existsSync(file)) return { passed: 0, failed: 1 };
  const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(file, 'utf8'));
  const failed = Math.max(numFailedTests, code === 0 ? 0 : Math.max(1, numFailedTestSuites > 0 ? 1 : 0));
  return { passed: numPassedTests, failed };
}
