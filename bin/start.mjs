// npm start: installs what is missing, starts PostgreSQL, loads demo data into an empty database, builds, serves.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildIfChanged } from './lib/build.mjs';
import { databaseUrls } from './lib/database.mjs';
import { ensureDebianPackages, ensureNodePackages } from './lib/packages.mjs';
import { assertFree, bin, freePort, main, Refusal, root, run, say, stateFolder } from './lib/project.mjs';

const args = process.argv.slice(2);
const dev = args.includes('--dev');
const fresh = args.includes('--fresh');

await main(async () => {
  const unknown = args.find((a) => a !== '--dev' && a !== '--fresh');
  if (unknown) throw new Refusal(`npm start knows --fresh and --dev, not ${unknown}`);
  const port = Number(process.env.PORT ?? 4300);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Refusal(`PORT must be a number from 1 to 65535, not ${process.env.PORT}`);
  await assertFree(port);
  if (dev) await assertFree(port + 1);
  ensureNodePackages();
  if (!process.env.DATABASE_URL) ensureDebianPackages('postgresql');
  const database = await databaseUrls('start', { fresh });
  try {
    return await serve(port, database.env);
  } finally {
    database.stop();
  }
});

async function serve(port, env) {
  const ending = endOfTheDay();
  if (!dev) await buildIfChanged();
  const [prepare, server] = dev
    ? [
        [bin('tsx'), 'server/prepare.ts'],
        [bin('tsx'), 'watch', '--clear-screen=false', 'server/main.ts'],
      ]
    : [
        [process.execPath, '--enable-source-maps', 'build/server/prepare.mjs'],
        [process.execPath, '--enable-source-maps', 'build/server/main.mjs'],
      ];
  const serverEnv = { ...env, NODE_ENV: dev ? 'development' : 'production', PORT: String(dev ? port + 1 : port) };
  const bankPort = await freePort();
  const bankEnv = { ...serverEnv, BANK_FILE: join(stateFolder, 'bank.json'), BANK_PORT: String(bankPort) };
  run(prepare[0], prepare.slice(1), { env: bankEnv });
  if (env.EBBET_DEMO !== '0' && !env.BANK_URL) serverEnv.BANK_URL = `http://127.0.0.1:${bankPort}`;
  const bank = dev ? [bin('tsx'), 'standins/bank/main.ts'] : [process.execPath, 'build/server/bank.mjs'];
  const children =
    serverEnv.BANK_URL === env.BANK_URL
      ? []
      : [spawn(bank[0], bank.slice(1), { cwd: root, env: bankEnv, stdio: 'inherit' })];
  children.push(spawn(server[0], server.slice(1), { cwd: root, env: serverEnv, stdio: 'inherit' }));
  if (dev) {
    const viteEnv = { ...process.env, EBBET_API: `http://127.0.0.1:${port + 1}` };
    children.push(
      spawn(bin('vite'), ['--port', String(port), '--strictPort', '--host', '127.0.0.1'], {
        cwd: root,
        env: viteEnv,
        stdio: 'inherit',
      }),
    );
    say(`Ebbet, rebuilt as you edit, is at http://127.0.0.1:${port}`);
  }
  const exits = children.map((child) => new Promise((resolve) => child.on('exit', (code) => resolve(code ?? 0))));
  const ended = await Promise.race([ending, ...exits]);
  for (const child of children) child.kill('SIGTERM');
  await Promise.all(exits);
  return ended;
}

/** Resolves with 0 at Ctrl-C or TERM. */
function endOfTheDay() {
  return new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => resolve(0));
  });
}
