// npm test: lint, types, unit, API and end-to-end tests on a database of their own, then one line with the sum.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildIfChanged } from './lib/build.mjs';
import { databaseUrls } from './lib/database.mjs';
import { ensureDebianPackages, ensureNodePackages } from './lib/packages.mjs';
import { bin, freePort, main, root, run, runAsync, say } from './lib/project.mjs';

const RESULTS = join(root, 'test-results');

await main(async () => {
  ensureNodePackages();
  ensureDebianPackages('postgresql', 'chromium');
  rmSync(RESULTS, { recursive: true, force: true });
  mkdirSync(RESULTS, { recursive: true });
  delete process.env.DATABASE_URL;
  const { lint } = await import('./lint.mjs');
  const counts = [await lint()];
  const database = await databaseUrls('test', { fresh: true, durable: false });
  try {
    counts.push(await unitTests(database.env));
    counts.push(await endToEnd(database.env));
  } finally {
    database.stop();
  }
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

/** The built application as a person runs it: demo data, and two server processes on one database. */
async function endToEnd(env) {
  await buildIfChanged();
  const [port, second, bankPort] = [await freePort(), await freePort(), await freePort()];
  Object.assign(env, {
    BANK_FILE: join(RESULTS, 'bank.json'),
    BANK_PORT: String(bankPort),
    BANK_URL: `http://127.0.0.1:${bankPort}`,
  });
  run(process.execPath, ['build/server/prepare.mjs'], { env });
  const servers = [
    spawn(process.execPath, ['build/server/bank.mjs'], { cwd: root, env, stdio: ['ignore', 'ignore', 'inherit'] }),
  ];
  for (const p of [port, second])
    servers.push(
      spawn(process.execPath, ['build/server/main.mjs'], {
        cwd: root,
        env: { ...env, NODE_ENV: 'production', PORT: String(p) },
        stdio: ['ignore', 'ignore', 'inherit'],
      }),
    );
  try {
    await Promise.all([answers(port), answers(second)]);
    const urls = { EBBET_URL: `http://127.0.0.1:${port}`, EBBET_SECOND_URL: `http://127.0.0.1:${second}` };
    const code = await runAsync(bin('playwright'), ['test'], { env: { ...env, ...urls } });
    return countEndToEnd(code);
  } finally {
    for (const server of servers) server.kill('SIGTERM');
  }
}

function countEndToEnd(code) {
  const file = join(RESULTS, 'e2e.json');
  if (!existsSync(file)) return { passed: 0, failed: 1 };
  const { stats, errors } = JSON.parse(readFileSync(file, 'utf8'));
  const failed = stats.unexpected + stats.flaky;
  return { passed: stats.expected, failed: failed || (code !== 0 || errors?.length ? 1 : 0) };
}

async function answers(port) {
  for (let i = 0; i < 600; i += 1) {
    try {
      if ((await fetch(`http://127.0.0.1:${port}/api/session`)).ok) return;
    } catch {
      // not listening yet
    }
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error(`the server on port ${port} did not start`);
}
