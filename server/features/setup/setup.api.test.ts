import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { SETUP_KINDS, SETUP_ROWS, type SetupKind } from '../../../contract/setup.ts';
import { useOfRate } from '../../records/claims/usesOf.ts';
import { DESCRIPTORS, hasValidity, isDated } from './descriptors.ts';

let api: TestApi;
let leilani: Client;
let maeve: Client;
beforeAll(async () => {
  api = await startApi('setup', { work: true });
  [leilani, maeve] = [await api.as('leilani.kahue'), await api.as('maeve.tarrant')];
});
afterAll(() => api.close());

const rows = async (kind: SetupKind) => (await leilani.get(`/setup/${kind}`)).body.rows as any[];
const view = async (number: string) => (await maeve.get(`/claims/${number}`)).body;

describe('every kind of master data', () => {
  it.each(SETUP_KINDS)('is described as its table is: %s', async (kind) => {
    const descriptor = DESCRIPTORS[kind];
    const { rows: columns } = await api.owner.raw(
      `select column_name as name, is_nullable = 'YES' as nullable, column_default is not null or is_identity = 'YES' as given
       from information_schema.columns where table_schema = 'public' and table_name = ?`,
      [descriptor.table],
    );
    const byName = new Map(columns.map((c: any) => [c.name, c]));
    for (const [field, { column }] of Object.entries(descriptor.columns)) {
      const stored = byName.get(column) as { nullable: boolean; given: boolean } | undefined;
      expect([field, stored !== undefined]).toEqual([field, true]);
      const takesNull = (SETUP_ROWS[kind].shape as any)[field].safeParse(null).success;
      if (takesNull) expect([field, stored!.nullable]).toEqual([field, true]);
    }
    const described = new Set(Object.values(descriptor.columns).map((c) => c.column));
    const left = columns.filter((c: any) => !described.has(c.name) && !c.nullable && !c.given).map((c: any) => c.name);
    expect(left).toEqual(kind === 'periods' ? ['state'] : []);
    expect([kind, byName.has('valid_from')]).toEqual([kind, hasValidity(descriptor)]);
    const { rows: exclusions } = await api.owner.raw(
      `select 1 from pg_constraint where conrelid = ?::regclass and contype = 'x'`,
      [descriptor.table],
    );
    if (kind !== 'periods') expect([kind, exclusions.length > 0]).toEqual([kind, isDated(descriptor)]);
  });
  it.each(SETUP_KINDS)('goes out as a file and comes back without changing anything: %s', async (kind) => {
    const before = await rows(kind);
    const csv = (await leilani.get(`/setup/${kind}/rows.csv`)).body as string;
    const { status, body } = await leilani.post(`/setup/${kind}/file`, { csv, apply: true });
    expect([status, body.says]).toEqual([200, undefined]);
    expect(new Set(body.rows.map((r: any) => r.outcome))).toEqual(new Set(before.length ? ['unchanged'] : []));
    expect(await rows(kind)).toEqual(before);
  });
  it('is kept by administrators and looked at by auditors alone', async () => {
    const auditor = await api.as('ottoline.marchbanks');
    expect((await auditor.get('/setup/people')).status).toBe(200);
    const row = { id: 'yacht', name: 'Yacht', account: '6310', recovery: '0', merchantCodes: [], fields: [] };
    for (const person of [auditor, maeve])
      expect((await person.post('/setup/categories', { revision: 0, row })).body.code).toBe('not-allowed');
    expect((await maeve.get('/setup/people')).body.code).toBe('not-allowed');
    expect((await leilani.get('/setup/nothing')).status).toBe(404);
  });
});

describe('a dated row', () => {
  const limit = (amount: string) => ({
    id: 'lodging-gb',
    rule: {
      kind: 'cap',
      per: 'night',
      severity: 'ask',
      categories: ['lodging'],
      countries: ['GB'],
      cap: { amount, currency: 'GBP' },
    },
  });
  it('is followed from a day on, never changed, with its history, and claims are judged by the row of their day', async () => {
    const [before] = (await rows('limits')).filter((r) => r.key[0] === 'lodging-gb');
    const claim = await view('C-1004');
    const night = claim.document.claim.lines[1].date as string;
    const answer = await leilani.post('/setup/limits', { revision: 0, row: limit('500.00'), validFrom: night });
    expect(answer.status).toBe(201);
    const now = answer.body.rows.filter((r: any) => r.key[0] === 'lodging-gb');
    expect(now.map((r: any) => [r.row.rule.cap.amount, r.validFrom, r.revision])).toEqual([
      ['110.00', null, 1],
      ['500.00', night, 1],
    ]);
    expect(now[0].row).toEqual(before.row);
    expect(now[0].validTo < night).toBe(true);
    await vi.waitFor(async () => {
      const { assessment } = await view('C-1004');
      expect(assessment.findings.some((f: any) => f.code === 'lodging-gb')).toBe(false);
    }, 20_000);
    const nobodys = ['/setup/limits/history/lodging-gb%7Ctwo', '/setup/limits/history/no-such-limit'];
    for (const path of nobodys) expect([path, (await leilani.get(path)).status]).toEqual([path, 404]);
    const { history } = (await leilani.get('/setup/limits/history/lodging-gb')).body;
    expect(history).toMatchObject([{ kind: 'followed', actor: 'Leilani Kahue', facts: { validFrom: night } }]);
  });
  it('cannot overlap another of its key, and a stale administrator is told', async () => {
    const add = (revision: number, validFrom: string | null) =>
      leilani.post('/setup/limits', { revision, row: limit('90.00'), validFrom });
    expect((await add(0, '2030-01-01')).body.code).toBe('stale');
    expect((await add(1, null)).body.code).toBe('row-overlaps');
    expect((await add(1, '2020-01-01')).body.code).toBe('row-overlaps');
    const latest = (await rows('limits')).findLast((r) => r.key[0] === 'lodging-gb');
    expect((await add(1, latest.validFrom)).body).toMatchObject({
      code: 'row-overlaps',
      numbers: { key: 'lodging-gb' },
    });
  });
  it('ends on a day', async () => {
    const key = ['phone'];
    const end = (on: string, revision = 0) => leilani.post('/setup/categories/end', { revision, key, on });
    expect((await end('2030-12-31', 5)).body.code).toBe('stale');
    expect((await end('2030-12-31', -1)).status).toBe(400);
    // a row of before there was a history is at 0, and ends as any other
    const old = { revision: 0, key: ['taxi'], on: '2031-12-31' };
    expect((await leilani.post('/setup/categories/end', old)).status).toBe(200);
    expect((await rows('categories')).find((r) => r.key[0] === 'taxi')).toMatchObject({
      validTo: '2031-12-31',
      revision: 1,
    });
    const first = await leilani.post('/setup/categories', {
      revision: 0,
      row: { id: 'phone', name: 'Telephone', account: '6510', recovery: '25', merchantCodes: ['4814'], fields: [] },
      validFrom: '2030-01-01',
    });
    expect(first.status).toBe(201);
    expect((await end('2030-12-31', 1)).status).toBe(200);
    const after = (await rows('categories')).filter((r) => r.key[0] === 'phone');
    expect(after.map((r) => [r.row.recovery, r.validFrom, r.validTo])).toEqual([
      ['50', null, '2029-12-31'],
      ['25', '2030-01-01', '2030-12-31'],
    ]);
    // sooner than it was to end, and not later
    expect((await end('2030-06-30', 2)).status).toBe(200);
    expect((await rows('categories')).findLast((r) => r.key[0] === 'phone').validTo).toBe('2030-06-30');
    expect((await end('2030-09-30', 3)).body.code).toBe('not-found');
  });
});

describe('a single row', () => {
  it('changes in the fields that may, and in no other', async () => {
    const [card] = await rows('cards');
    const change = (fields: object, revision = 0) =>
      leilani.post('/setup/cards', { revision, row: { ...card.row, ...fields } });
    expect((await change({ currency: 'NOK' })).body.code).toBe('row-used');
    expect((await change({ label: 'Field card' })).status).toBe(201);
    expect((await change({ holder: 'nobody' }, 1)).body.code).toBe('row-refers');
    expect((await rows('cards'))[0]).toMatchObject({ row: { label: 'Field card' }, revision: 1 });
  });
  it('of a rate is added once, and claims in that currency are assessed again', async () => {
    const before = await view('C-1004');
    const { date } = before.document.claim.lines.find((l: any) => l.currency === 'GBP' && l.rate?.kind !== 'own');
    const rate = { from: 'GBP', to: 'EUR', date, rate: '2', source: 'By hand' };
    expect((await leilani.post('/setup/rates', { revision: 0, row: rate })).status).toBe(201);
    const asked = await api
      .owner('pgboss.job')
      .where({ name: 'assess-claims' })
      .select(api.owner.raw(`data ->> 'key' as key`));
    expect(asked.map((job: any) => job.key)).toEqual(expect.arrayContaining([useOfRate('GBP'), useOfRate('EUR')]));
    expect((await leilani.post('/setup/rates', { revision: 1, row: { ...rate, rate: '3' } })).body.code).toBe(
      'row-used',
    );
    await vi.waitFor(async () => {
      const { assessment } = await view('C-1004');
      expect(assessment.lines.map((l: any) => l.ledgerAmount)).not.toEqual(
        before.assessment.lines.map((l: any) => l.ledgerAmount),
      );
    }, 20_000);
  });
  it('of a budget speaks the ledger’s currency, with its decimals', async () => {
    const budget = { entity: 'JP', dimension: 'grant', code: 'G-118', category: null };
    const add = (amount: string, revision = 0) =>
      leilani.post('/setup/budgets', { revision, row: { ...budget, amount } });
    expect((await add('100.00')).body.numbers.path).toBe('row.amount');
    expect((await add('100')).status).toBe(201);
    expect((await api.owner('budgets').where({ entity_id: 'JP' }).first()).amount).toBe(100n);
    expect((await add('250', 1)).body.rows.find((r: any) => r.row.entity === 'JP').row.amount).toBe('250');
  });
});

describe('a file of rows', () => {
  const head = 'id,name,account,recovery,merchantCodes,fields,validFrom,validTo';
  const send = (csv: string, apply: boolean) => leilani.post('/setup/categories/file', { csv, apply });
  it('is rehearsed first: it says what would happen and changes nothing', async () => {
    const before = await rows('categories');
    const csv = `${head}\r\nbird,Bird food,6310,100,"[""5999""]",[],,\r\nmeal,Meal,6220,10,[],[],2031-01-01,\r\n`;
    const { body } = await send(csv, false);
    expect(body).toEqual({
      applied: false,
      rows: [
        { line: 2, key: ['bird'], outcome: 'added' },
        { line: 3, key: ['meal'], outcome: 'follows' },
      ],
    });
    expect(await rows('categories')).toEqual(before);
    expect((await send(csv, true)).body.applied).toBe(true);
    expect((await rows('categories')).filter((r) => ['bird', 'meal'].includes(r.key[0]))).toHaveLength(3);
  });
  it('is taken whole or not at all, with the line of the fault', async () => {
    const before = await rows('categories');
    const faults: [string, string][] = [
      [`${head}\nfish,Fish,6310,100,[],[],,\nbad,Bad,6310,101,[],[],,`, 'Line 3: recovery'],
      [`${head}\nfish,Fish,6310,100,[],[],,\nbad,Bad,9999,100,[],[],,`, 'Line 3: The row for bad names something'],
      [`${head}\nfish,Fish,6310,100,[],[],31.12.2026,`, 'Line 2: validFrom is not a calendar date'],
      ['id,name\nx,y', 'Line 1: the column account is missing'],
      [`${head},colour\nfish,Fish,6310,100,[],[],,,red`, 'Line 1: there is no column colour'],
      [`${head}\nfish,Fish`, 'Line 2: it has 2 cells'],
      [`${head}\n"fish,Fish`, 'quotation mark'],
      [`${head}\nfish,Fish,6310,100,[],[],2026-02-01,2026-01-01`, 'Line 2: The row for fish cannot be'],
    ];
    for (const [csv, says] of faults) {
      const { status, body } = await send(csv, true);
      expect([status, body.code]).toEqual([422, 'csv-refused']);
      expect(body.says).toContain(says);
    }
    expect(await rows('categories')).toEqual(before);
  });
});

describe('the name of an entity', () => {
  it('and its time zone change; its today is the day where it is', async () => {
    const [ie] = await rows('entities');
    const put = (timeZone: string, revision: number) =>
      leilani.post('/setup/entities', { revision, row: { ...ie.row, timeZone } });
    expect((await put('Mars/Olympus', 0)).body.numbers.path).toBe('row.timeZone');
    expect((await put('Pacific/Kiritimati', 0)).status).toBe(201);
  });
});

describe('accounts', () => {
  it('that are not there are named by no entity, and stop a claim when it is corrected', async () => {
    const [terms] = (await rows('entity-terms')).filter((r) => r.row.entity === 'IE');
    const row = { ...terms.row, accounts: { ...terms.row.accounts, bank: '9999' } };
    const put = await leilani.post('/setup/entity-terms', { revision: terms.revision, row, validFrom: '2030-01-01' });
    expect(put.body).toMatchObject({ code: 'row-refers', numbers: { to: 'account 9999' } });
    const { revision } = (await view('C-1002')).claim;
    const coding = { account: '9999' };
    const corrected = await maeve.put('/claims/C-1002/lines/1', { revision, set: { coding } });
    expect(corrected.status).toBe(200);
    const found = await api
      .owner('findings as f')
      .join('claims as c', 'c.id', 'f.claim_id')
      .where('c.number', 'C-1002');
    expect(found).toContainEqual(expect.objectContaining({ code: 'account-unknown', severity: 'stop', line_id: '1' }));
  });
});

describe('what decides about oneself', () => {
  const put = (kind: string, row: object, revision = 0) => leilani.post(`/setup/${kind}`, { revision, row });
  const idOf = async (mail: string): Promise<string> =>
    (
      await api
        .owner('people')
        .where({ email: `${mail}@saltmarsh.example` })
        .first()
    ).id;

  it('is kept by somebody else: one’s roles, card, name, substitute', async () => {
    const me = await idOf('leilani.kahue');
    const other = await idOf('maeve.tarrant');
    expect((await put('roles', { person: me, role: 'controller', entity: null })).body.code).toBe('own-record');
    expect((await put('roles', { person: other, role: 'controller', entity: null })).status).toBe(201);
    expect((await put('substitutes', { person: other, substitute: me })).body.code).toBe('own-record');
    const card = (await rows('cards')).find((c) => c.row.holder === me);
    expect((await put('cards', { ...card.row, label: 'Mine' }, card.revision)).body.code).toBe('own-record');
    expect((await put('cards', { ...card.row, holder: other }, card.revision)).body.code).toBe('own-record');
    const person = (await rows('people')).find((p) => p.row.id === me);
    expect((await put('people', { ...person.row, usualApprover: other }, person.revision)).body.code).toBe(
      'own-record',
    );
  });
  it('is kept by somebody else: the budget of a code one owns', async () => {
    const me = await idOf('leilani.kahue');
    const [budget] = await rows('budgets');
    const { dimension, code } = budget.row;
    const amended = { ...budget.row, amount: '123456.00' };
    await api.owner('dimension_values').where({ dimension_id: dimension, code }).update({ owner_id: me });
    expect((await put('budgets', amended, budget.revision)).body.code).toBe('own-record');
    const value = (await rows('dimension-values')).find((v) => v.row.dimension === dimension && v.row.code === code);
    const given = { revision: value.revision, row: { ...value.row, owner: null }, validFrom: value.validFrom };
    expect((await leilani.post('/setup/dimension-values', { ...given, validTo: value.validTo })).body.code).toBe(
      'own-record',
    );
    await api.owner('dimension_values').where({ dimension_id: dimension, code }).update({ owner_id: null });
    expect((await put('budgets', amended, budget.revision)).status).toBe(201);
  });
  it('is kept by somebody else: a rate that an open claim of one’s own may take', async () => {
    const { rows: lines } = await api.owner.raw(`
      select l.date, l.currency, c.id, c.claimant_id from lines l join claims c on c.id = l.claim_id and c.version = l.version
      join entities e on e.id = c.entity_id
      where c.state = 'in review' and l.currency <> e.currency limit 1`);
    const [{ date, currency, id, claimant_id: claimant }] = lines;
    const rate = { from: 'CHF', to: currency, date, rate: '1.2345', source: 'Tried out' };
    await api
      .owner('claims')
      .where({ id })
      .update({ claimant_id: await idOf('leilani.kahue') });
    expect((await put('rates', rate)).body.code).toBe('own-record');
    await api.owner('claims').where({ id }).update({ claimant_id: claimant });
    expect((await put('rates', rate)).status).toBe(201);
  });
});
