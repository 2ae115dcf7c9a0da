import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';

const state = mkdtempSync(join(tmpdir(), 'ebbet-start-'));
const port = 4395;
const env = {
  ...process.env,
  PORT: String(port),
  EBBET_STATE: state,
  DATABASE_OWNER_URL: '',
  DATABASE_APP_URL: undefined,
  SESSION_SECRET: undefined,
};
const start = (...args: string[]) => spawn(process.execPath, ['bin/start.mjs', ...args], { env, stdio: 'pipe' });

async function announced(child: ChildProcess): Promise<string> {
  let output = '';
  child.stderr!.on('data', (chunk) => (output += chunk));
  for await (const chunk of child.stdout!) {
    output += chunk;
    if (output.includes('Ctrl-C stops it')) return output;
  }
  throw new Error(`it ended without serving: ${output}`);
}
const ended = (child: ChildProcess) =>
  new Promise<number | null>((resolve) =>
    child.exitCode === null ? child.on('exit', resolve) : resolve(child.exitCode),
  );
const answers = async () => (await fetch(`http://127.0.0.1:${port}/api/session`).catch(() => null))?.ok ?? false;
const clusterLives = () => spawnSync('pgrep', ['-f', join(state, 'start', 'data')]).status === 0;

test.afterAll(() => rmSync(state, { recursive: true, force: true }));

test('the start command serves with its own database, and TERM stops both', async () => {
  test.setTimeout(400_000);
  const first = start();
  const output = await announced(first);
  expect(output).toContain(`http://127.0.0.1:${port}`);
  expect(output).toContain('maeve.tarrant@saltmarsh.example');
  expect([await answers(), clusterLives()]).toEqual([true, true]);
  const secret = readFileSync(join(state, 'start.secrets.json'), 'utf8');

  // a second one on the same port says so, and leaves the first alone
  const second = start();
  let complaint = '';
  second.stderr.on('data', (chunk) => (complaint += chunk));
  expect(await ended(second)).toBe(1);
  expect(complaint).toContain(`Port ${port} is taken by another program.`);
  expect(await answers()).toBe(true);

  first.kill('SIGTERM');
  expect(await ended(first)).toBe(0);
  expect([await answers(), clusterLives()]).toEqual([false, false]);

  // started again it keeps its data and its secrets
  const again = start();
  await announced(again);
  expect(readFileSync(join(state, 'start.secrets.json'), 'utf8')).toBe(secret);
  expect(await answers()).toBe(true);
  again.kill('SIGINT');
  expect(await ended(again)).toBe(0);
  expect(clusterLives()).toBe(false);
});

test('rebuilt as it is edited, it serves the sources, in front of the server', async () => {
  test.setTimeout(200_000);
  const child = start('--dev');
  const page = async () => (await fetch(`http://127.0.0.1:${port}/`).catch(() => null))?.text();
  await expect.poll(page, { timeout: 90_000 }).toContain('/@vite/client');
  await expect.poll(answers, { timeout: 60_000 }).toBe(true);
  child.kill('SIGTERM');
  expect(await ended(child)).toBe(0);
});

test('what cannot be is said in one line', async () => {
  const said = (args: string[], extra: object) =>
    spawnSync(process.execPath, ['bin/start.mjs', ...args], { env: { ...env, ...extra }, encoding: 'utf8' });
  expect(said(['--quick'], {})).toMatchObject({
    status: 1,
    stderr: 'ebbet: npm start knows --fresh and --dev, not --quick\n',
  });
  expect(said([], { PORT: 'http' }).stderr).toBe('ebbet: PORT must be a number from 1 to 65535, not http\n');
  expect(said(['--fresh'], { DATABASE_OWNER_URL: 'postgres://x@127.0.0.1:1/x' }).stderr).toContain('is yours to empty');
  const squatter = createServer().listen(4396, '127.0.0.1');
  await new Promise((resolve) => squatter.once('listening', resolve));
  const child = spawn(process.execPath, ['bin/start.mjs'], { env: { ...env, PORT: '4396' }, stdio: 'pipe' });
  let complaint = '';
  child.stderr.on('data', (chunk) => (complaint += chunk));
  expect(await ended(child)).toBe(1);
  expect(complaint).toContain('PORT=4397 npm start');
  squatter.close();
});

test('a server or a database that dies is started again, and says so', async () => {
  test.setTimeout(200_000);
  const child = start();
  let output = '';
  child.stdout.on('data', (chunk) => (output += chunk));
  await expect.poll(() => output, { timeout: 120_000 }).toContain('Ctrl-C stops it');
  const pidOf = (what: string) =>
    spawnSync('pgrep', ['-P', String(child.pid), '-f', what], { encoding: 'utf8' }).stdout.split('\n')[0];
  const environment = readFileSync(`/proc/${pidOf('build/server/main.mjs')}/environ`, 'latin1');
  expect(environment).not.toContain('DATABASE_OWNER_URL');

  process.kill(Number(pidOf('build/server/main.mjs')), 'SIGKILL');
  await expect.poll(answers, { timeout: 5000 }).toBe(false);
  await expect.poll(answers, { timeout: 30_000 }).toBe(true);
  expect(output).toContain('The server ended (SIGKILL); it is started again in 1 s');

  const [postmaster] = readFileSync(join(state, 'start', 'data', 'postmaster.pid'), 'utf8').split('\n');
  process.kill(Number(postmaster), 'SIGKILL');
  await expect.poll(() => output, { timeout: 30_000 }).toContain('The database is gone; it is started again');
  await expect.poll(answers, { timeout: 60_000 }).toBe(true);
  child.kill('SIGTERM');
  expect(await ended(child)).toBe(0);
  expect(clusterLives()).toBe(false);
});
