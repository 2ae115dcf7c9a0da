import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { canonical } from '../../../core/numbers/canonical.ts';
import { eventText } from '../../../core/workflow/eventText.ts';
import { HISTORY_KEY, startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { toChained } from '../../platform/history/appendEvent.ts';
import { sha256 } from '../../platform/history/sha256.ts';

/** What an auditor exports and proves, and what somebody with the whole database in hand cannot change unseen. */
let api: TestApi;
let auditor: Client;
let maeve: Client;
const folder = mkdtempSync(join(tmpdir(), 'ebbet-verify-'));
beforeAll(async () => {
  api = await startApi('verify');
  [auditor, maeve] = [await api.as('ottoline.finch').catch(() => null as never), await api.as('maeve.tarrant')];
  if (!auditor) {
    const row = await api
      .owner('person_roles as r')
      .join('people as p', 'p.id', 'r.person_id')
      .where({ role: 'auditor' })
      .first('p.email');
    auditor = await api.as(row.email.split('@')[0]);
  }
  const { claim } = (await maeve.get('/claims/C-1002')).body;
  const until = '2030-01-15';
  await maeve.post('/claims/C-1002/hold', { revision: claim.revision, reason: 'waits for the ferry', until });
});
afterAll(() => api.close());

async function verify(): Promise<{ status: number | null; faults: string }> {
  const kept = async (path: string) => {
    const file = join(folder, path);
    writeFileSync(file, String((await auditor.get(`/${path}`)).body));
    return file;
  };
  const key = join(folder, 'key');
  writeFileSync(key, `${HISTORY_KEY}\n`);
  const [history, words, journals] = [
    await kept('history.jsonl'),
    await kept('words.jsonl'),
    await kept('journals.jsonl'),
  ];
  const args = ['verify', '--key', key, '--words', words, '--journals', journals, history];
  const { status, stderr } = spawnSync(process.execPath, ['bin/ebbet', ...args], { encoding: 'utf8' });
  return { status, faults: stderr };
}
/** Somebody who owns the database and turns its triggers off. */
async function tamper(sql: string, ...values: unknown[]): Promise<void> {
  await api.owner.transaction(async (trx) => {
    await trx.raw('set local session_replication_role = replica');
    await trx.raw(sql, values as never);
  });
}

describe('a history that is exported with its words', () => {
  it('is proved intact, with the key of the application', async () => {
    expect(await verify()).toEqual({ status: 0, faults: '' });
  });
  it('is no longer when words were changed, or their salt', async () => {
    const { event_id, salt } = await api.owner('event_words').orderBy('event_id', 'desc').first();
    const id = String(event_id);
    await tamper(`update event_words set words = words || '{"reason": "waits for the bank"}' where event_id = ?`, id);
    expect((await verify()).faults).toContain('had other words');
    await tamper(`update event_words set words = '{"reason": "waits for the ferry"}' where event_id = ?`, id);
    expect((await verify()).status).toBe(0);
    await tamper(`update event_words set salt = 'other' where event_id = ?`, id);
    expect((await verify()).faults).toContain('had other words');
    await tamper('update event_words set salt = ? where event_id = ?', salt, id);
    // words that were removed are no fault
    await tamper('delete from event_words where event_id = ?', id);
    expect((await verify()).status).toBe(0);
  });
  it('shows an event that somebody added at the end of a chain, its hashes right', async () => {
    const last = await api
      .owner('events')
      .where({ record_kind: 'claim', record_id: 'C-1002' })
      .orderBy('seq', 'desc')
      .first();
    const forged = {
      ...last,
      seq: last.seq + 1,
      at: new Date(),
      kind: 'released',
      facts: '{"revision":99}',
      previous_hash: last.hash,
    };
    const add = async (mark: string | null) => {
      const hash = sha256(eventText(toChained({ ...forged, about: null, private_hash: null })));
      await tamper(
        `insert into events (record_kind, record_id, seq, at, actor_id, kind, facts, previous_hash, hash, mark) values ('claim', 'C-1002', ?, ?, ?, 'released', ?, ?, ?, ?)`,
        ...[forged.seq, forged.at, last.actor_id, canonical({ revision: 99 }), last.hash, hash, mark],
      );
      const { faults } = await verify();
      await tamper(`delete from events where hash = ?`, hash);
      return faults;
    };
    expect(await add(null)).toContain(
      `claim C-1002, event ${forged.seq} was not written by the application: it has no mark`,
    );
    expect(await add('0'.repeat(64))).toContain('its mark does not fit');
    expect(await add(last.mark)).toContain('stands twice');
    expect((await verify()).status).toBe(0);
  });
});
