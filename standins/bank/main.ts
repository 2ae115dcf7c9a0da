import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createBank, passNight, type Bank } from './server.ts';

/**
 * The bank as a process: BANK_FILE keeps its book, PORT is where it answers. A night passes each midnight (UTC), and at
 * the start for every day that went by while it was not running.
 */
const { BANK_FILE, BANK_PORT = '4380' } = process.env;
const bank: Bank = { book: { cards: [], purchases: [] }, deliveries: [], fault: null, keep };
if (BANK_FILE && existsSync(BANK_FILE))
  Object.assign(bank, JSON.parse(readFileSync(BANK_FILE, 'utf8')) as Partial<Bank>);

function keep(): void {
  if (!BANK_FILE) return;
  const { book, deliveries } = bank;
  writeFileSync(`${BANK_FILE}.new`, JSON.stringify({ book, deliveries }));
  renameSync(`${BANK_FILE}.new`, BANK_FILE);
}

const DAY = 86_400_000;
const MOST_NIGHTS = 60;
function catchUp(): void {
  const last = bank.deliveries.at(-1)?.day;
  const yesterday = new Date(Date.now() - DAY).toISOString().slice(0, 10);
  let day = last ? next(last) : yesterday;
  for (let i = 0; day <= yesterday && i < MOST_NIGHTS; i += 1, day = next(day)) passNight(bank, day);
}
const next = (day: string): string => new Date(Date.parse(`${day}T00:00:00Z`) + DAY).toISOString().slice(0, 10);

catchUp();
setInterval(catchUp, 60_000).unref();
const server = createBank(bank).listen(Number(BANK_PORT), '127.0.0.1');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => server.close(() => process.exit(0)) && server.closeAllConnections());
