import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect, type Db } from '../../server/platform/db/connect.ts';
import { createMailbox, type Received } from '../../standins/mail/server.ts';
import { startServer, type ServerProcess } from '../fixtures/serverProcess.ts';
import { cloneDatabase, databaseUrl, ownerUrl } from '../fixtures/testDatabase.ts';

/** The server is killed again and again while messages go out by mail: in the end each arrived, and once. */
const NAME = 'ebbet_mail_kill';
const MESSAGES = 150;
const KILLS = 3;

let owner: Db;
const letters: Received[] = [];
const { smtp } = createMailbox(letters, () => undefined);
let env: Record<string, string>;
let running: ServerProcess | null = null;

beforeAll(async () => {
  await cloneDatabase('ebbet_template', NAME);
  owner = connect(databaseUrl(ownerUrl()!, NAME));
  await new Promise<void>((resolve) => void smtp.listen(0, '127.0.0.1', resolve));
  const { port } = smtp.server.address() as AddressInfo;
  env = {
    DATABASE_APP_URL: databaseUrl(process.env.DATABASE_APP_URL!, NAME),
    SMTP_URL: `smtp://127.0.0.1:${port}`,
  };
});
afterAll(async () => {
  await running?.kill();
  await new Promise<void>((resolve) => smtp.close(() => resolve()));
  await owner.destroy();
});

const waiting = async () => Number((await owner('messages').whereNull('mailed_at').count({ n: '*' }).first())!.n);
async function untilFewer(than: number): Promise<void> {
  for (let i = 0; i < 3000 && (await waiting()) >= than; i += 1) await new Promise((done) => setTimeout(done, 10));
}

describe('a server that is killed while it sends mail', () => {
  it('sends each message once in the end', async () => {
    const facts = JSON.stringify({ whose: 'P05', purpose: 'Nets', amount: '12.00', currency: 'EUR' });
    const row = { person_id: 'P05', hears_as: 'maker', record_kind: 'claim', event: 'cleared', mail: 'at once', facts };
    await owner('messages').delete();
    await owner('messages').insert(
      Array.from({ length: MESSAGES }, (_, i) => ({ ...row, record_id: `C-${i}`, at: new Date() })),
    );
    for (let kill = 1; kill <= KILLS; kill += 1) {
      running = await startServer(env);
      await untilFewer(MESSAGES - (kill * MESSAGES) / (KILLS + 2));
      await running.kill();
      expect(await waiting()).toBeGreaterThan(0);
      // a job whose process fell silent is given to the next one, which the start asks for anyway
    }
    running = await startServer(env);
    await untilFewer(1);
    expect(await waiting()).toBe(0);
    // an hour that begins meanwhile may bring a reminder of an advance, which is none of these
    const own = letters.filter((l) => /\bC-\d{1,3}\b/.test(l.subject));
    expect(own).toHaveLength(MESSAGES);
    expect(new Set(own.map((l) => l.subject)).size).toBe(MESSAGES);
    expect(own.every((l) => l.html && l.text.includes('12.00 EUR'))).toBe(true);
    // between the post office's yes and the note of it a kill may fall, at most once a kill; the mailbox knows it again
    expect(own.reduce((sum, l) => sum + l.times - 1, 0)).toBeLessThanOrEqual(KILLS);
  }, 120_000);
});
