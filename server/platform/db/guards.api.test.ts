import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import type { Db } from './connect.ts';

let api: TestApi;
beforeAll(async () => {
  api = await startApi('guards');
  await api.owner.raw('revoke temporary on database ebbet_guards from public');
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
    `insert into events (record_kind, record_id, seq, at, kind, facts, previous_hash, hash) values ('claim', 'C-1001', 99, now(), 'cleared', '{}', '', '')`,
    'delete from events',
    'truncate events',
    'insert into event_words select * from event_words limit 1',
    'update event_words set salt = salt',
    'delete from event_words',
    `insert into journals (number) values ('X')`,
    'update journals set live = false',
    'delete from journals',
    'truncate journals cascade',
    'insert into journal_rows select * from journal_rows limit 1',
    'update journal_rows set debit = debit',
    'delete from journal_rows',
    'update tax_rows set tax = tax',
    'update open_items set amount = 0',
    'insert into open_item_movements select * from open_item_movements limit 1',
    'delete from open_item_movements',
    'update budget_movements set amount = amount',
    'update budgets set posted = 0',
    'update journal_numbers set last = 0',
    'update claim_counts set count = 0',
    'update books set content = content',
    'update idempotency_keys set response = response',
    'update receipt_files set original = original',
    'update receipt_pages set view = view',
    'update statements set original = original',
    'delete from statements',
    'delete from claims',
    'delete from claim_versions',
    'create table mine (id int)',
    'create temporary table mine (id int)',
    'drop table claims',
    'alter table journals disable trigger all',
    'update credentials set password_hash = password_hash',
    'insert into credentials select * from credentials limit 1',
    'update rates set rate = 1',
    'update categories set account = account',
    'update limits set rule = rule',
    'delete from limits',
    'update entity_terms set accounts = accounts',
    'create role other',
  ];
  it.each(statements)('cannot: %s', async (sql) => {
    expect(await refusedWith(api.app.raw(sql))).toBe(DENIED);
  });
  it('cannot change a version once it was submitted, nor what the bank said of a charge', async () => {
    expect(await refusedWith(api.app.raw(`update claim_versions set submitted = '{}'`))).toBe(HISTORY);
    expect(await refusedWith(api.app.raw('update charges set amount = amount + 1'))).toBe(HISTORY);
  });
});

describe('even the owner of the tables', () => {
  beforeAll(async () => {
    const budget = await api.owner('budgets').first('id');
    const row = {
      budget_id: budget.id,
      stage: 'reserved',
      amount: 5,
      source_kind: 'plan',
      source_id: 'T-1',
      at: new Date(),
    };
    await api.app('budget_movements').insert(row);
    expect((await api.owner('budgets').where({ id: budget.id }).first()).reserved).toBe(5n);
    const key = { key: 'k'.repeat(8), person_id: 'P01', act: 'x', request_hash: '', response: '{}', at: new Date() };
    await api.owner('idempotency_keys').insert(key);
  });
  it.each([
    'update events set kind = kind',
    'delete from events',
    ...'events receipt_files receipt_pages statements charges books event_words idempotency_keys open_items'
      .split(' ')
      .map((table) => `truncate ${table} cascade`),
    'delete from journals',
    'truncate journals cascade',
    'update journal_rows set debit = debit',
    'delete from journal_rows',
    'truncate journal_rows cascade',
    'update journals set date = date + 1',
    'update journals set live = false where live',
    'delete from open_item_movements',
    'update tax_rows set tax = 0',
    'delete from budget_movements',
    'truncate budget_movements',
    'delete from claim_versions',
    'truncate claim_versions cascade',
    'delete from statements',
    `update event_words set words = '{}'`,
    'update event_words set salt = salt || 1',
    `update receipt_files set original = 'x'`,
    `update receipt_pages set view = 'x'`,
    'delete from idempotency_keys',
    `update idempotency_keys set response = '{"id": 1}'`,
    `update events set mark = repeat('0', 64)`,
  ])('is refused: %s', async (sql) => {
    expect(await refusedWith(api.owner.raw(sql))).toBe(HISTORY);
  });
});

const today = () => new Date().toISOString().slice(0, 10);
const head = (fields: object = {}) => ({
  number: `T-${Math.random()}`,
  entity_id: 'IE',
  currency: 'EUR',
  date: today(),
  period_id: today().slice(0, 7),
  purpose: 'advance payout',
  source_kind: 'advance',
  source_id: `T-${Math.random()}`,
  live: true,
  posted_by: 'P03',
  posted_at: new Date(),
  ...fields,
});
const row = (position: number, debit: number, credit: number, fields: object = {}) => ({
  position,
  account: '6210',
  coding: {},
  debit,
  credit,
  currency: 'EUR',
  amount: debit - credit,
  text: '',
  ...fields,
});
const BALANCED = [row(1, 100, 0), row(2, 0, 100)];
const postAs = async (
  db: Db,
  header: object,
  rows: object[],
  movements: object[] = [],
  proof: string | null = null,
): Promise<bigint> => {
  const args = [header, rows, movements, []].map((arg) => JSON.stringify(arg));
  const { rows: made } = await db.raw('select id from post_journal(?::jsonb, ?::jsonb, ?::jsonb, ?::jsonb, ?)', [
    ...args,
    proof as string,
  ]);
  return made[0].id;
};
const post = (fields: object, rows: object[] = BALANCED, movements: object[] = []) =>
  postAs(api.owner, head(fields), rows, movements);

describe('a journal', () => {
  it('is refused out of balance, without rows, with a two-sided row', async () => {
    expect(await refusedWith(post({}, [row(1, 100, 0), row(2, 0, 99)]))).toBe('EB002');
    expect(await refusedWith(post({}, []))).toBe('EB002');
    expect(await refusedWith(post({}, [row(1, 100, 100)]))).toBe(CHECK);
  });
  it('is refused outside an open period, and in the future', async () => {
    expect(await refusedWith(post({ date: '2020-01-15' }))).toBe('EB001');
    const closed = await api.owner('periods').where({ state: 'closed', entity_id: 'IE' }).first();
    expect(await refusedWith(post({ date: closed.from_date, period_id: closed.id }))).toBe('EB001');
    const next = await api.owner('periods').where('from_date', '>', today()).orderBy('from_date').first();
    expect(await refusedWith(post({ date: next.from_date, period_id: next.id }))).toBe('EB005');
  });
  it('is the one live journal of its source and purpose', async () => {
    const source_id = 'T-once';
    await post({ source_id });
    expect(await refusedWith(post({ source_id }))).toBe('23505');
  });
  it('takes no rows later, also with constraints set to be checked at once or later', async () => {
    const id = await post({});
    for (const when of ['immediate', 'deferred'])
      expect(
        await refusedWith(
          api.owner.transaction(async (trx) => {
            await trx.raw(`set constraints all ${when}`);
            await trx('journal_rows').insert([
              { ...row(8, 5, 0), journal_id: id },
              { ...row(9, 0, 5), journal_id: id },
            ]);
          }),
        ),
      ).toBe(HISTORY);
  });
  it('is judged by what is in it at the end, however constraints are set in between', async () => {
    const work = api.owner.transaction(async (trx) => {
      const id = await postAs(trx as unknown as Db, head(), BALANCED);
      await trx.raw('set constraints all immediate');
      await trx('journal_rows').insert({ ...row(3, 7, 0), journal_id: id });
    });
    expect(await refusedWith(work)).toBe('EB002');
  });
  it('moves a control account only with its open items, and the other way round', async () => {
    const payable = [row(1, 100, 0), row(2, 0, 100, { account: '2110' })];
    const item = { position: 2, kind: 'payable', account: '2110', currency: 'EUR', person_id: 'P05' };
    const moved = { ...item, source_kind: 'claim', source_id: 'T-1', amount: -100, ledger_amount: -100 };
    expect(await refusedWith(post({}, payable))).toBe('EB004');
    expect(await refusedWith(post({}, payable, [{ ...moved, ledger_amount: -99 }]))).toBe('EB004');
    expect(await refusedWith(post({}, BALANCED, [moved]))).toBe('EB004');
    await post({}, payable, [moved]);
    expect((await api.owner('open_items').where({ source_id: 'T-1' }).first()).amount).toBe(-100n);
  });
});

describe('a reversal', () => {
  const reversed = async (fields: object = {}, rows: object[] = [row(1, 0, 100), row(2, 100, 0)]) => {
    const source_id = `T-${Math.random()}`;
    const id = await post({ source_id });
    const back = { purpose: 'reversal', source_id, live: false, reverses: String(id), reason: 'Wrong', ...fields };
    return { id, answer: await refusedWith(post(back, rows)) };
  };
  it('mirrors what it reverses, and nothing else ends a live journal', async () => {
    const { id, answer } = await reversed();
    expect(answer).toBe('not refused');
    expect((await api.owner('journals').where({ id }).first()).live).toBe(false);
    expect((await reversed({}, [row(1, 0, 90), row(2, 90, 0)])).answer).toBe('EB003');
    expect((await reversed({}, [row(1, 0, 100), row(2, 100, 0, { account: '6220' })])).answer).toBe('EB003');
    expect((await reversed({ source_id: 'T-other' })).answer).toBe('EB003');
    expect((await reversed({ reason: null })).answer).toBe(CHECK);
  });
  it('is not dated before what it reverses, and comes once', async () => {
    await api.owner('periods').where({ entity_id: 'IE' }).update({ state: 'open' });
    const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
    expect((await reversed({ date: yesterday, period_id: yesterday.slice(0, 7) })).answer).toBe('EB003');
    const { id } = await reversed();
    const again = { purpose: 'reversal', source_id: 'x', live: false, reverses: String(id), reason: 'Again' };
    expect(await refusedWith(post(again, [row(1, 0, 100), row(2, 100, 0)]))).toBe('23505');
  });
});
