import { afterAll, beforeAll, expect, it } from 'vitest';
import { connect, type Db } from '../../server/platform/db/connect.ts';
import { viewOf } from '../fixtures/acts.ts';
import { cleanClaims } from '../fixtures/cleanClaims.ts';
import { startServer, type ServerProcess } from '../fixtures/serverProcess.ts';
import { cloneDatabase, databaseUrl, ownerUrl } from '../fixtures/testDatabase.ts';

/** The server is killed again and again while claims are cleared together: in the end each was cleared, and once. */
const NAME = 'ebbet_clear_kill';
const CLAIMS = 18;
const KILLS = 2;

let owner: Db;
let env: Record<string, string>;
let running: ServerProcess;

beforeAll(async () => {
  await cloneDatabase('ebbet_template', NAME);
  owner = connect(databaseUrl(ownerUrl()!, NAME));
  // a job whose process fell silent is given to the next one soon
  env = { DATABASE_APP_URL: databaseUrl(process.env.DATABASE_APP_URL!, NAME), READ_SECONDS: '2' };
});
afterAll(async () => {
  await running.kill();
  await owner.destroy();
});

const outcomes = () =>
  owner('clearing_items as i').join('claims as c', 'c.id', 'i.claim_id').select('c.number', 'i.outcome');
const left = async () => (await outcomes()).filter((i) => i.outcome === null).length;
async function untilFewer(than: number): Promise<void> {
  for (let i = 0; i < 6000 && (await left()) >= than; i += 1) await new Promise((done) => setTimeout(done, 10));
}

it('claims cleared together are cleared once each, however often the server is killed', async () => {
  running = await startServer(env);
  const [tomas, siobhan, maeve] = await Promise.all(
    ['tomas.brandao', 'siobhan.odowd', 'maeve.tarrant'].map((mail) => running.as(mail)),
  );
  const numbers = await cleanClaims({ claimant: tomas!, approver: siobhan! }, CLAIMS);
  const claims = await Promise.all(
    numbers.map(async (number) => ({ number, revision: (await viewOf(maeve!, number)).claim.revision })),
  );
  expect((await maeve!.post('/clearings', { claims })).status).toBe(201);
  for (let kill = 1; kill <= KILLS; kill += 1) {
    await untilFewer(CLAIMS - (kill * CLAIMS) / (KILLS + 2));
    await running.kill();
    expect(await left()).toBeGreaterThan(0);
    running = await startServer(env);
  }
  await untilFewer(1);
  const became = await outcomes();
  const count = (outcome: string) => became.filter((i) => i.outcome === outcome).length;
  expect([count('cleared'), count('drawn'), count('left out')]).toEqual([CLAIMS - 2, 2, 0]);
  for (const { number, outcome } of became) {
    const cleared = await owner('events').where({ record_kind: 'claim', record_id: number, kind: 'cleared' });
    const { state } = await owner('claims').where({ number }).first('state');
    expect([number, cleared.length, state]).toEqual([
      number,
      outcome === 'drawn' ? 0 : 1,
      outcome === 'drawn' ? 'in review' : 'cleared',
    ]);
  }
}, 180_000);
