import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear as clearAs, post } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

let api: TestApi;
let maeve: Client;
let odd: Client;
let noor: Client;
beforeAll(async () => {
  api = await startApi('journals');
  [maeve, odd, noor] = [
    await api.as('maeve.tarrant'),
    await api.as('odd.fjellheim'),
    await api.as('noor.aldosari', api.second),
  ];
});
afterAll(() => api.close());

const view = async (number: string) => (await maeve.get(`/claims/${number}`)).body;
const clear = async (number: string, client = maeve) => expect((await clearAs(client, number)).status).toBe(200);
const liveCount = async (number: string) =>
  (await api.owner('journals').where({ source_kind: 'claim', source_id: `${number}/1`, purpose: 'claim', live: true }))
    .length;

describe('posting', () => {
  it('makes the journal that was shown, row for row, with its way back to shares', async () => {
    await clear('C-1001');
    const { assessment } = await view('C-1001');
    const { status, body } = await post(odd, 'C-1001');
    expect(status).toBe(201);
    const journal = (await odd.get(`/journals/${body.journal}`)).body;
    const shown = assessment.journal.map((r: any) => [r.account, r.debit, r.credit, r.currency, r.amount, r.line]);
    expect(journal.rows.map((r: any) => [r.account, r.debit, r.credit, r.currency, r.amount, r.line])).toEqual(shown);
    expect(journal.rows[0]).toMatchObject({
      share: 0,
      origin: { merchant: 'Casa das Salinas', share: { of: 1 }, receipt: { amount: '202.00' } },
    });
    expect((await view('C-1001')).claim.state).toBe('posted');
  });

  it('happens once for a double click: the same key gives the same journal', async () => {
    const { claim, document, digest } = await view('C-1014');
    const body = {
      revision: claim.revision,
      date: document.postingDate,
      digest,
    };
    const send = (body: object) => odd.once('double-click-1').post('/claims/C-1014/post', body);
    const answers = await Promise.all([1, 2, 3, 4].map(() => send(body)));
    expect(answers.map((a) => a.status)).toEqual([201, 201, 201, 201]);
    expect(new Set(answers.map((a) => a.body.journal)).size).toBe(1);
    expect(await liveCount('C-1014')).toBe(1);
    expect((await send({ ...body, date: '2026-01-01' })).body.code).toBe('key-reused');
  });

  it('happens once for two controllers on two server processes', async () => {
    const answers = await Promise.all([
      post(odd, 'C-1015'),
      post(noor, 'C-1015'),
      post(odd, 'C-1015'),
      post(noor, 'C-1015'),
    ]);
    expect(answers.filter((a) => a.status === 201)).toHaveLength(1);
    expect(answers.filter((a) => a.status === 409).map((a) => a.body.code)).toEqual(['stale', 'stale', 'stale']);
    expect(await liveCount('C-1015')).toBe(1);
  });

  it('is refused to whoever cleared the claim alone, to its claimant, and to reviewers', async () => {
    await clear('C-1013', noor);
    expect((await post(noor, 'C-1013')).body.code).toBe('kept-apart');
    expect((await post(maeve, 'C-1013')).body.code).toBe('not-allowed');
    await api.owner('claims').where({ number: 'C-1016' }).update({ claimant_id: 'P03' });
    const seen = { revision: 1, date: '2026-01-01', digest: '0'.repeat(64) };
    expect((await odd.post('/claims/C-1016/post', seen)).body.code).toBe('own-record');
  });

  it('is refused into a closed period, naming the open ones', async () => {
    const closed = await api.owner('periods').where({ entity_id: 'IE', state: 'closed' }).first();
    for (const date of ['2020-01-15', closed.from_date]) {
      const { body } = await post(odd, 'C-1013', { date });
      expect(body).toMatchObject({ code: 'period-closed', numbers: { date } });
      expect(body.numbers.open).toMatch(/^\d{4}-\d{2}/);
    }
  });

  it('is refused when the figures are no longer those that were shown', async () => {
    await clear('C-1003');
    const { claim, document, digest } = await view('C-1003');
    await api.owner('rates').where({ to_currency: 'KES' }).update({ rate: 150 });
    const old = { revision: claim.revision, date: document.postingDate, digest };
    expect((await odd.post('/claims/C-1003/post', old)).body.code).toBe('figures-changed');
    expect((await odd.post('/claims/C-1003/post', { ...old, digest: null })).body.code).toBe('invalid');
    expect((await post(odd, 'C-1003')).status).toBe(201);
  });

  it('is refused for a day that has not come yet', async () => {
    await clear('C-1012');
    const tomorrow = new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 10);
    const { body } = await post(odd, 'C-1012', { date: tomorrow });
    expect(body).toMatchObject({ code: 'future-date', numbers: { date: tomorrow } });
  });

  it('shows what was posted, not what it would come to now that it is posted', async () => {
    const { assessment, may } = await view('C-1003');
    expect([Number(assessment.settlement.advances[0].applied) > 0, may]).toEqual([true, []]);
    const advance = await api.owner('open_items').where({ source_id: 'A-031' }).first();
    expect(assessment.settlement.advances[0].left).toBe((Number(advance.amount) / 100).toFixed(2));
    expect(assessment.findings.filter((f: any) => f.severity === 'stop')).toEqual([]);
  });

  it('leaves nothing by which the claim would be found to be assessed again', async () => {
    const { id } = await api.owner('claims').where({ number: 'C-1003' }).first();
    expect(await api.owner('assessment_uses').where({ claim_id: id })).toEqual([]);
  });

  it('leaves tax rows with their bases, and open items that agree with their accounts', async () => {
    const { rows } = await api.owner.raw(
      `select t.code, t.base, t.tax, t.recoverable from tax_rows t join journals j on j.id = t.journal_id where j.source_id = 'C-1001/1' order by t.position`,
    );
    expect(rows).toEqual(expect.arrayContaining([{ code: 'IE-23', base: 8131n, tax: 1870n, recoverable: 1870n }]));
    const loose = await api.owner.raw(
      `select r.account, sum(r.debit - r.credit)::bigint as ledger, (select coalesce(sum(ledger_amount), 0)::bigint from open_items i where i.account = r.account) as open
       from journal_rows r where r.account in (select control_accounts('IE')) group by 1 having sum(r.debit - r.credit) <> (select coalesce(sum(ledger_amount), 0) from open_items i where i.account = r.account)`,
    );
    expect(loose.rows).toEqual([]);
  });
});

describe('reversing', () => {
  const outstanding = async () =>
    (await api.owner('open_items').where({ source_id: 'A-031', kind: 'staff advance' }).first())!.amount;
  const reverse = (number: string, fields: object = {}) =>
    odd.post(`/journals/${number}/reversal`, {
      date: today,
      reason: 'Wrong grant',
      ...fields,
    });
  const today = new Date().toISOString().slice(0, 10);

  it('exchanges the sides, points both ways, gives advances back, and lets the claim be posted again', async () => {
    const number = (await view('C-1003')).journals.at(-1).number;
    expect(await outstanding()).not.toBe(6000000n);
    const { status, body } = await reverse(number);
    expect(status).toBe(201);
    const [original, reversal] = [
      (await odd.get(`/journals/${number}`)).body,
      (await odd.get(`/journals/${body.journal}`)).body,
    ];
    expect([original.journal.reversedBy, reversal.journal.reverses, original.journal.live]).toEqual([
      body.journal,
      number,
      false,
    ]);
    expect(reversal.rows.map((r: any) => [r.account, r.credit, r.debit])).toEqual(
      original.rows.map((r: any) => [r.account, r.debit, r.credit]),
    );
    expect(await outstanding()).toBe(6000000n);
    const { claim } = await view('C-1003');
    expect(claim.state).toBe('reversed');
    await maeve.post('/claims/C-1003/reopen', { revision: claim.revision });
    await clear('C-1003');
    expect((await post(odd, 'C-1003')).status).toBe(201);
    expect(await liveCount('C-1003')).toBe(1);
  });

  it('happens once, and not for a reversal, a paid claim or a closed period', async () => {
    const { number } = (await view('C-1017')).journals[0];
    expect((await reverse(number, { date: '2020-01-15' })).body.code).toBe('before-original');
    const answers = await Promise.all([reverse(number), reverse(number)]);
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409]);
    expect((await reverse(answers.find((a) => a.status === 201)!.body.journal)).body.code).toBe('not-live');
    const paid = (await view('C-1021')).journals[0].number;
    expect((await reverse(paid)).body.code).toBe('wrong-state');
    expect((await reverse('IE-999999')).status).toBe(404);
    expect((await reverse('IE-000001')).status).toBe(404);
  });

  it('is not dated before what it reverses', async () => {
    const journal = (await view('C-1018')).journals[0];
    const before = new Date(Date.parse(journal.date) - 86_400_000).toISOString().slice(0, 10);
    await api.owner('periods').update({ state: 'open' });
    expect((await reverse(journal.number, { date: before })).body.code).toBe('before-original');
  });
});

describe('reading the ledger', () => {
  it('of another entity is nobody’s who has no role there', async () => {
    await clear('C-1002');
    expect((await post(odd, 'C-1002')).status).toBe(201);
    const { id } = await api.owner('people').where({ email: 'tomas.brandao@saltmarsh.example' }).first();
    await api.owner('person_roles').insert({ person_id: id, role: 'reviewer', entity_id: 'JP' });
    const tomas = await api.as('tomas.brandao');
    const own = (await tomas.get('/journals')).body.journals.map((j: any) => j.number);
    expect(own.filter((number: string) => !number.startsWith('JP-'))).toEqual([]);
    expect((await tomas.get('/journals/IE-000002')).status).toBe(404);
    expect((await tomas.get('/journals/JP-000001')).status).toBe(200);
  });
  it('numbers journals of an entity without a gap', async () => {
    const numbers = await api.owner('journals').where({ entity_id: 'IE' }).orderBy('id').pluck('number');
    expect(numbers).toEqual(numbers.map((_, i) => `IE-${String(i + 1).padStart(6, '0')}`));
  });
  it('downloads every row, balanced, with a column for each dimension', async () => {
    const { body, headers } = await odd.get('/journals/export.csv?entity=IE');
    expect(headers.get('content-disposition')).toContain('ledger.csv');
    const [head, ...rows] = body
      .replace('\uFEFF', '')
      .trim()
      .split('\r\n')
      .map((r: string) => r.split(','));
    expect(head).toEqual(expect.arrayContaining(['journal', 'account', 'debit', 'credit', 'costCentre', 'project']));
    const cents = (column: string) =>
      rows.reduce((a: bigint, r: string[]) => a + BigInt(r[head.indexOf(column)]!.replace('.', '')), 0n);
    expect(cents('debit')).toBe(cents('credit'));
    expect(rows).toHaveLength(
      Number(
        (await api
          .owner('journal_rows as r')
          .join('journals as j', 'j.id', 'r.journal_id')
          .where('j.entity_id', 'IE')
          .count()
          .first())!.count,
      ),
    );
  });
});
