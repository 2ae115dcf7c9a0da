// npm start: installs what is missing, starts PostgreSQL, loads demo data into an empty database, builds, serves.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildIfChanged } from './lib/build.mjs';
import { databaseUrls } from './lib/database.mjs';
import { ensureDebianPackages, ensureNodePackages } from './lib/packages.mjs';
import { keepRunning, supervise } from './lib/supervise.mjs';
import { assertFree, bin, freePort, main, Refusal, run, say, stateFolder } from './lib/project.mjs';

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
  if (!process.env.DATABASE_OWNER_URL) ensureDebianPackages('postgresql');
  const database = await databaseUrls('start', { fresh });
  const leave = keepRunning('The database', database.runs, database.begin);
  try {
    return await serve(port, database.env, database.ownPassword);
  } finally {
    leave();
    database.stop();
  }
});

async function serve(port, env, ownPassword) {
  const ending = endOfTheDay();
  if (!dev) await buildIfChanged();
  const serverEnv = { ...env, NODE_ENV: dev ? 'development' : 'production', PORT: String(dev ? port + 1 : port) };
  const bankPort = await freePort();
  const withYear = env.EBBET_DEMO !== '0' && env.EBBET_DEMO_YEAR !== '0';
  const bankEnv = { ...serverEnv, BANK_FILE: join(stateFolder, 'bank.json'), BANK_PORT: String(bankPort) };
  const [command, ...args] = program('server/prepare.ts', 'prepare');
  const asked = [
    ...(env.EBBET_DEMO !== '0' ? ['--demo'] : []),
    ...(withYear ? ['--year-follows'] : []),
    ...(ownPassword ? ['--app-password'] : []),
  ];
  // what it makes ready is the demo's: whatever serves people is made ready by prepare itself
  const readyEnv = { ...bankEnv, NODE_ENV: 'development' };
  run(command, [...args, ...asked], { env: readyEnv });
  const mailPort = Number(process.env.MAIL_PORT ?? (await freePort()));
  const smtpPort = await freePort();
  const mailEnv = {
    ...serverEnv,
    MAIL_FILE: join(stateFolder, 'mail.json'),
    MAIL_PORT: String(mailPort),
    MAIL_SMTP_PORT: String(smtpPort),
  };
  const ownMail = env.EBBET_DEMO !== '0' && !env.SMTP_URL;
  const receipts = { RECEIPTS_ADDRESS: 'receipts@saltmarsh.example', RECEIPTS_SMTP_PORT: String(await freePort()) };
  if (ownMail) Object.assign(mailEnv, receipts);
  if (ownMail) await assertFree(mailPort);
  const own = env.EBBET_DEMO !== '0' && !env.BANK_URL;
  if (own) serverEnv.BANK_URL = `http://127.0.0.1:${bankPort}`;
  if (ownMail)
    Object.assign(serverEnv, {
      SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
      ...receipts,
      SEALS_TO: 'auditor@saltmarsh.example',
      DEMO_MAIL: `http://127.0.0.1:${mailPort}, SMTP at port ${smtpPort}`,
    });
  // Migrating needs the owner's rights; what serves never holds its address.
  delete serverEnv.DATABASE_OWNER_URL;
  const programs = [
    ...(own ? [supervise('The bank’s stand-in', program('standins/bank/main.ts', 'bank'), { env: bankEnv })] : []),
    ...(ownMail ? [supervise('The mail’s stand-in', program('standins/mail/main.ts', 'mail'), { env: mailEnv })] : []),
    supervise('The server', program('server/main.ts', 'main'), { env: serverEnv }),
    ...(dev ? [builder(port)] : []),
  ];
  const year = withYear ? begin(program('server/year.ts', 'year'), readyEnv) : null;
  if (dev) say(`Ebbet, rebuilt as you edit, is at http://127.0.0.1:${port}`);
  const ended = await Promise.race([ending, ...programs.map((p) => p.failed)]);
  year?.kill();
  await Promise.all(programs.map((p) => p.stop()));
  return ended;
}

/** Begins a program that ends by itself; what it does is not waited for. */
function begin([command, ...args], env) {
  return spawn(command, args, { env: { ...process.env, ...env }, stdio: 'inherit' });
}

/** How a program is run: its bundle, or, rebuilt as it is edited, its source. */
function program(source, bundle) {
  if (!dev) return [process.execPath, '--enable-source-maps', `build/server/${bundle}.mjs`];
  return bundle === 'main' ? [bin('tsx'), 'watch', '--clear-screen=false', source] : [bin('tsx'), source];
}

/** What builds the page as it is edited, in front of the server. */
function builder(port) {
  const env = { ...process.env, EBBET_API: `http://127.0.0.1:${port + 1}` };
  return supervise('The builder', [bin('vite'), '--port', String(port), '--strictPort', '--host', '127.0.0.1'], {
    env,
  });
}

/** Resolves with 0 at Ctrl-C or TERM. */
function endOfTheDay() {
  return new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => resolve(0));
  });
}
