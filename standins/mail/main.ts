import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createMailbox, type Received } from './server.ts';

/**
 * The post office as a process: it takes every mail at MAIL_SMTP_PORT and shows them at MAIL_PORT. It delivers none, but
 * passes those to RECEIPTS_ADDRESS on to RECEIPTS_SMTP_PORT. MAIL_FILE keeps them.
 */
const { MAIL_FILE, MAIL_PORT = '4390', MAIL_SMTP_PORT = '4391', RECEIPTS_ADDRESS, RECEIPTS_SMTP_PORT } = process.env;
const kept: Received[] = MAIL_FILE && existsSync(MAIL_FILE) ? JSON.parse(readFileSync(MAIL_FILE, 'utf8')) : [];

function keep(letters: readonly Received[]): void {
  if (!MAIL_FILE) return;
  writeFileSync(`${MAIL_FILE}.new`, JSON.stringify(letters));
  renameSync(`${MAIL_FILE}.new`, MAIL_FILE);
}

const { smtp, pages } = createMailbox(
  kept,
  keep,
  RECEIPTS_ADDRESS && RECEIPTS_SMTP_PORT ? { address: RECEIPTS_ADDRESS, port: Number(RECEIPTS_SMTP_PORT) } : null,
);
smtp.listen(Number(MAIL_SMTP_PORT), '127.0.0.1');
pages.listen(Number(MAIL_PORT), '127.0.0.1');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    smtp.close();
    pages.close(() => process.exit(0));
    pages.closeAllConnections();
  });
