import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { createApp } from './app.ts';
import { endCompute } from './platform/compute/compute.ts';
import { listenToDatabase } from './platform/live/live.ts';
import { createClosing } from './platform/http/closing.ts';
import { readSecrets } from './platform/http/secrets.ts';
import { trustProxy } from './platform/http/trustProxy.ts';
import { connect } from './platform/db/connect.ts';
import { createPool } from './platform/db/pool.ts';
import { startJobs } from './platform/jobs/jobs.ts';
import { startWork } from './work.ts';
import { bankAt } from './platform/ports/bank.ts';
import { takeMail } from './features/receipts/intake.service.ts';
import { usualThrottles } from './platform/http/throttle.ts';
import { listenForMail } from './platform/ports/mailIn.ts';
import { mailerAt } from './platform/ports/mail.ts';
import { systemClock } from './platform/ports/clock.ts';
import { readLanguages } from './platform/outside/languages.ts';
import { createReader, usualReaderLimits } from './platform/outside/reader.ts';

/** Environment, pools, listening and stopping; started by the start command. */
const {
  DATABASE_APP_URL,
  SESSION_SECRET,
  HISTORY_KEY,
  STOP_SECONDS = '30',
  PORT = '4300',
  EBBET_DEMO = '0',
  NODE_ENV,
  TRUST_PROXY,
  HOST = '127.0.0.1',
  BANK_URL,
  READ_SECONDS = '90',
  READ_LANGUAGES = usualReaderLimits.languages.join(),
  SMTP_URL,
  MAIL_FROM = 'Ebbet <ebbet@localhost>',
  PUBLIC_URL = `http://${HOST}:${PORT}`,
  SEALS_FOLDER,
  SEALS_TO = '',
  DEMO_MAIL,
  RECEIPTS_ADDRESS,
  RECEIPTS_SMTP_PORT,
  RECEIPTS_SMTP_HOST = '127.0.0.1',
} = process.env;
const secrets = readSecrets(SESSION_SECRET);
const languages = readLanguages(READ_LANGUAGES);
if (!DATABASE_APP_URL || 'says' in secrets || 'says' in languages) {
  const [says] = [secrets, languages].flatMap((setting) => ('says' in setting ? [setting.says] : []));
  const missing = 'DATABASE_APP_URL must hold the address of the database; npm start sets it';
  process.stderr.write(`ebbet: ${DATABASE_APP_URL ? says : missing}\n`);
  process.exit(1);
}

const log = pino({ level: 'info' }, pino.destination(2));
// what somebody waits for, and what is done in the background, each have their own connections and their own patience
const db = connect(DATABASE_APP_URL, { statementSeconds: 30, log });
const workDb = connect(DATABASE_APP_URL, { max: 6, statementSeconds: 300, log });
const pool = createPool(DATABASE_APP_URL, log);
const webFolder = NODE_ENV === 'production' ? join(fileURLToPath(new URL('.', import.meta.url)), '..', 'web') : null;
const readSeconds = Number(READ_SECONDS);
const reader = createReader({ ...usualReaderLimits, readSeconds, languages });
const jobs = await startJobs(pool, log, { expireSeconds: readSeconds + 10, lookSeconds: Math.min(30, readSeconds) });
const bank = BANK_URL ? bankAt(BANK_URL) : null;
const services = {
  db,
  clock: systemClock,
  historyKey: HISTORY_KEY?.trim() || null,
  reader,
  jobs,
  bank,
  mailer: SMTP_URL ? mailerAt(SMTP_URL, MAIL_FROM) : null,
  publicUrl: PUBLIC_URL.replace(/\/$/, ''),
  seals: {
    folder: SEALS_FOLDER ?? null,
    mailboxes: SEALS_TO.split(',')
      .map((to) => to.trim())
      .filter(Boolean),
  },
  log,
  live: listenToDatabase(DATABASE_APP_URL, log),
};
if (reader.unconfined.length > 0) log.warn({ missing: reader.unconfined }, 'readers of files are not confined whole');
const intake = new RateLimiterPostgres(usualThrottles.upload(pool));
await startWork({ ...services, db: workDb }, jobs);
const mailbox =
  RECEIPTS_ADDRESS && RECEIPTS_SMTP_PORT
    ? listenForMail(
        { address: RECEIPTS_ADDRESS, port: Number(RECEIPTS_SMTP_PORT), host: RECEIPTS_SMTP_HOST },
        (bytes) => reader.sender(bytes),
        (mail) => takeMail(services, intake, mail),
        log,
      )
    : null;
const demo = EBBET_DEMO !== '0';
const closing = createClosing();
const app = createApp({
  context: services,
  pool,
  log,
  secrets: secrets.secrets,
  closing,
  demo,
  webFolder,
  trustProxy: trustProxy(TRUST_PROXY),
});

const server = app.listen(Number(PORT), HOST, () => {
  if (NODE_ENV === 'production') process.stdout.write(announcement());
  process.send?.('ready');
});
server.on('error', (error: NodeJS.ErrnoException) => {
  process.stderr.write(
    error.code === 'EADDRINUSE' ? `ebbet: port ${PORT} is taken by another program\n` : `${error.stack}\n`,
  );
  process.exit(1);
});

function announcement(): string {
  const mail = DEMO_MAIL
    ? `  its mail    ${DEMO_MAIL}   (receipts mailed there to ${RECEIPTS_ADDRESS} are taken)\n`
    : '';
  const signIns = `  reviewer    maeve.tarrant@saltmarsh.example
  controller  odd.fjellheim@saltmarsh.example
  claimant    tomas.brandao@saltmarsh.example
  password    saltmarsh   (for everybody in the demo)
${mail}`;
  return `\nEbbet is at http://${HOST}:${PORT}\n${demo ? `\n${signIns}` : ''}\nCtrl-C stops it and its database.\n`;
}

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  // what is under way is finished, as long as a proxy waits for it; nothing new is begun
  closing.begin();
  const closed = new Promise((resolve) => server.once('close', resolve));
  server.close();
  server.closeIdleConnections();
  const idle = setInterval(() => server.closeIdleConnections(), 200);
  setTimeout(() => server.closeAllConnections(), Number(STOP_SECONDS) * 1000).unref();
  await Promise.all([closed, mailbox?.close(), jobs.pause()]);
  clearInterval(idle);
  await jobs.stop();
  reader.close();
  endCompute();
  await Promise.all([db.destroy(), workDb.destroy(), pool.end(), services.live.close()]);
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
