import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { canonical } from '../../../core/workflow/eventText.ts';
import { hashOf, sha256 } from '../history/appendEvent.ts';

let api: TestApi;
beforeAll(async () => {
  api = await startApi('guards');
});
afterAll(() => api.close());

const refusedWith = async (work: Promise<unknown>): Promise<string> => {
  try {
    await work;
  } catch (error) {
    return (error as { code?: string }).code ?? (error as Error).message;
  }
  return 'not refused';
};
const DENIED = '42501';
const HISTORY = '23001';
const CHECK = '23514';

describe('the application’s database role', () => {
  const statements = [
    'update events set kind = kind',
    'delete from events',
    'truncate events',
    'delete from journals',
    'truncate journals cascade',
    'update journals set date = date',
    'update journal_rows set debit = debit',
    'delete from journal_rows',
    'update event_words set salt = salt',
    'delete from event_words',
    'delete from advance_movements',
    'update claim_versions set submitted = null',
    'delete from claims',
    'create table mine (id int)',
    'drop table claims',
    'alter table journals disable trigger all',
    'update people set active = true',
    `insert into person_roles values ('P05', 'controller')`,
    'update credentials set password_hash = password_hash',
    'update periods set state = state',
    'update rates set rate = 1',
    'create role other',
    'update receipt_files set original = original',
  ];
  it.each(statements)('cannot: %s', async (sql) => {
    expect(await refusedWith(api.app.raw(sql))).toBe(DENIED);
  });
});

describe('even the owner of the tables', () => {
  it.each([
    'update events set kind = kind',
    'delete from events',
    'truncate events cascade',
    'delete from journals',
    'truncate journals cascade',
    'update journal_rows set debit = debit',
    'delete from journal_rows',
    `update journals set date = date + 1`,
    'update journals set live = false where live',
    'delete from advance_movements',
  ])('is refused: %s', async (sql) => {
    expect(await refusedWith(api.owner.raw(sql))).toBe(HISTORY);
  });
});

describe('a journal', () => {
  const header = (fields: object = {}) => {
    const date = new Date().toISOString().slice(0, 10);
    return {
      number: `T-${Math.random()}`,
      entity_id: 'IE',
      currency: 'EUR',
      date,
      period_id: date.slice(0, 7),
      kind: 'posting',
      claim_id: 14,
      claim_version: 1,
      live: true,
      posted_by: 'P03',
      posted_at: new Date(),
      document: '{}',
      ...fields,
    };
  };
  const row = (journal_id: bigint, position: number, debit: number, credit: number) => ({
    journal_id,
    position,
    account: '6210',
    coding: '{}',
    debit,
    credit,
    currency: 'EUR',
    amount: debit - credit,
    text: '',
  });
  const insert = (fields: object, rows: [number, number][]) =>
    api.app.transaction(async (trx) => {
      const [{ id }] = await trx('journals').insert(header(fields), 'id');
      for (const [i, [debit, credit]] of rows.entries())
        await trx('journal_rows').insert(row(id, i + 1, debit, credit));
      return id;
    });

  it('is refused out of balance, without rows, with a two-sided row, outside an open period', async () => {
    expect(
      await refusedWith(
        insert({}, [
          [100, 0],
          [0, 99],
        ]),
      ),
    ).toBe(CHECK);
    expect(await refusedWith(insert({}, []))).toBe(CHECK);
    expect(await refusedWith(insert({}, [[100, 100]]))).toBe(CHECK);
    expect(
      await refusedWith(
        insert({ date: '2020-01-15' }, [
          [1, 0],
          [0, 1],
        ]),
      ),
    ).toBe(CHECK);
    const closed = await api.owner('periods').where({ state: 'closed' }).first();
    expect(
      await refusedWith(
        insert({ date: closed.from_date, period_id: closed.id }, [
          [1, 0],
          [0, 1],
        ]),
      ),
    ).toBe(CHECK);
  });
  it('is the one live posting of its claim version, and takes no rows later', async () => {
    const id = await insert({}, [
      [100, 0],
      [0, 100],
    ]);
    expect(
      await refusedWith(
        insert({}, [
          [100, 0],
          [0, 100],
        ]),
      ),
    ).toBe('23505');
    expect(await refusedWith(api.app('journal_rows').insert(row(id, 9, 5, 0)))).toBe(HISTORY);
  });
});

describe('the history', () => {
  const broken = async (): Promise<number> => {
    const events = await api.owner('events').orderBy(['record_kind', 'record_id', 'seq']);
    let previous: Record<string, any> | null = null;
    let count = 0;
    for (const event of events) {
      const follows = previous?.record_id === event.record_id ? previous!.hash : '0'.repeat(64);
      if (event.hash !== hashOf(event) || event.previous_hash !== follows) count += 1;
      previous = event;
    }
    return count;
  };
  it('is a chain that anyone can compute again', async () => {
    expect(await broken()).toBe(0);
  });
  it('hashes words in without holding them, so they can be removed', async () => {
    const event = await api
      .owner('events as e')
      .join('event_words as w', 'w.event_id', 'e.id')
      .where('e.kind', 'returned')
      .first();
    expect(JSON.stringify(event.facts)).not.toContain('receipt');
    expect(event.private_hash).toBe(sha256(event.salt + canonical(event.words)));
    await api.owner('event_words').where({ event_id: event.event_id }).delete();
    expect(await broken()).toBe(0);
  });
  it('shows a change by somebody who went round the guards', async () => {
    await api.owner.raw('alter table events disable trigger user');
    await api.owner.raw(
      `update events set facts = facts || '{"revision": 99}' where id = (select min(id) from events)`,
    );
    expect(await broken()).toBe(1);
  });
});
