// npm run e2e [FILE…]: end-to-end tests on databases of their own; a name keeps the files that hold it.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildIfChanged } from './lib/build.mjs';
import { databaseUrls } from './lib/database.mjs';
import { ensureDebianPackages, ensureNodePackages } from './lib/packages.mjs';
import { bin, freePort, main, RESULTS, root, run, runAsync, say } from './lib/project.mjs';

/** Stories that are run beside the others, on an installation of their own; about half of the time. */
const BESIDE = ['calculation', 'cards', 'messages', 'palette', 'refusals', 'start', 'story', 'views'];

/** All stories, in two halves at once, each on a database of its own; or those that are named. */
export async function endToEnd(args = []) {
  await buildIfChanged();
  const database = await databaseUrls('test', { fresh: true, durable: false });
  try {
    run(process.execPath, ['build/server/prepare.mjs', '--demo', '--app-password'], { env: database.env });
    if (args.length > 0) return await stories(database.env, 'e2e', args);
    const files = readdirSync(join(root, 'test', 'e2e')).filter((file) => file.endsWith('.spec.ts'));
    const isBeside = (file) => BESIDE.includes(file.replace('.spec.ts', ''));
    const beside = await copyOf(database.env, 'beside');
    const [a, b] = await Promise.all([
      stories(beside, 'e2e-1', files.filter(isBeside)),
      stories(
        { ...database.env },
        'e2e-2',
        files.filter((file) => !isBeside(file)),
      ),
    ]);
    return { passed: a.passed + b.passed, failed: a.failed + b.failed };
  } finally {
    database.stop();
  }
}

/** The environment of a copy of what is in a database. */
async function copyOf(env, name) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: addressOf(env.DATABASE_OWNER_URL, 'postgres') });
  await client.connect();
  await client.query(`create database ${name} template ${new URL(env.DATABASE_OWNER_URL).pathname.slice(1)}`);
  await client.end();
  const named = ['DATABASE_OWNER_URL', 'DATABASE_APP_URL'].map((key) => [key, addressOf(env[key], name)]);
  return { ...env, ...Object.fromEntries(named) };
}
const addressOf = (url, database) => Object.assign(new URL(url), { pathname: database }).href;

/** The built application as a person runs it: demo data, and two server processes on one database. */
async function stories(env, name, args) {
  const [port, second, bankPort] = [await freePort(), await freePort(), await freePort()];
  const [mailPort, smtpPort] = [await freePort(), await freePort()];
  Object.assign(env, {
    BANK_FILE: join(RESULTS, `${name}-bank.json`),
    BANK_PORT: String(bankPort),
    BANK_URL: `http://127.0.0.1:${bankPort}`,
    MAIL_PORT: String(mailPort),
    MAIL_SMTP_PORT: String(smtpPort),
    SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
    PUBLIC_URL: `http://127.0.0.1:${port}`,
  });
  const servers = ['bank', 'mail'].map((standin) =>
    spawn(process.execPath, [`build/server/${standin}.mjs`], {
      cwd: root,
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    }),
  );
  for (const p of [port, second])
    servers.push(
      spawn(process.execPath, ['build/server/main.mjs'], {
        cwd: root,
        env: { ...env, NODE_ENV: 'production', PORT: String(p), STOP_SECONDS: '1' },
        stdio: ['ignore', 'ignore', 'inherit'],
      }),
    );
  try {
    await Promise.all([answers(port), answers(second)]);
    const urls = { EBBET_URL: `http://127.0.0.1:${port}`, EBBET_SECOND_URL: `http://127.0.0.1:${second}` };
    urls.EBBET_MAIL_URL = `http://127.0.0.1:${mailPort}`;
    urls.EBBET_RESULTS = join(RESULTS, name);
    const code = await runAsync(bin('playwright'), ['test', ...args], { env: { ...env, ...urls } });
    return countEndToEnd(code, `${urls.EBBET_RESULTS}.json`);
  } finally {
    // before their database goes, so that nothing is said after the sum
    const living = servers.filter((server) => server.exitCode === null && server.signalCode === null);
    const ends = living.map((server) => once(server, 'exit'));
    for (const server of living) server.kill('SIGTERM');
    await Promise.all(ends);
  }
}

function countEndToEnd(code, file) {
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

if (process.argv[1]?.endsWith('e2e.mjs'))
  await main(async () => {
    ensureNodePackages();
    ensureDebianPackages('postgresql', 'chromium-headless-shell');
    mkdirSync(RESULTS, { recursive: true });
    for (const given of ['DATABASE_OWNER_URL', 'DATABASE_APP_URL', 'DATABASE_URL']) delete process.env[given];
    const { passed, failed } = await endToEnd(process.argv.slice(2));
    say(`${passed} passed, ${failed} failed`);
    return failed > 0 ? 1 : 0;
  });
