import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Answer, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

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
const post = async (client: Client, number: string, fields: object = {}): Promise<Answer> => {
  const { claim, document, digest } = await view(number);
  return client.post('/journals', {
    claim: number,
    revision: claim.revision,
    date: document.postingDate,
    digest,
    key: `key-${Math.random()}`,
    ...fields,
  });
};
/** Clears a claim after waiving whatever is not tied. */
async function clear(number: string, client = maeve): Promise<void> {
  const { claim, ties } = await view(number);
  for (const tie of ties.filter((t: any) => t.state === 'off' || t.state === 'open'))
    await client.post(`/claims/${number}/marks`, {
      revision: claim.revision,
      line: tie.line,
      kind: tie.kind,
      mark: 'waived',
      reason: 'Agreed',
    });
  expect((await client.post(`/claims/${number}/clear`, { revision: claim.revision })).status).toBe(200);
}
const liveCount = async (number: string) =>
  (await api.owner('journals as j').join('claims as c', 'c.id', 'j.claim_id').where({ 'c.number': number, live: true }))
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
    expect(journal.rows[0]).toMatchObject({ share: 0, origin: { merchant: 'Casa das Salinas' } });
    expect((await view('C-1001')).claim.state).toBe('posted');
  });

  it('happens once for a double click: the same key gives the same journal', async () => {
    const { claim, document, digest } = await view('C-1014');
    const body = {
      claim: 'C-1014',
      revision: claim.revision,
      date: document.postingDate,
      digest,
      key: 'double-click-1',
    };
    const answers = await Promise.all([1, 2, 3, 4].map(() => odd.post('/journals', body)));
    expect(answers.map((a) => a.status)).toEqual([201, 201, 201, 201]);
    expect(new Set(answers.map((a) => a.body.journal)).size).toBe(1);
    expect(await liveCount('C-1014')).toBe(1);
    expect((await odd.post('/journals', { ...body, date: '2026-01-01' })).body.code).toBe('key-reused');
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
    expect((await post(noor, 'C-1013')).body.code).toBe('alone-cleared');
    expect((await post(maeve, 'C-1013')).body.code).toBe('not-allowed');
    await api.owner('claims').where({ number: 'C-1016' }).update({ claimant_id: 'P03' });
    expect((await post(odd, 'C-1016')).body.code).toBe('own-claim');
  });

  it('is refused into a closed period, naming the open ones', async () => {
    const { body } = await post(odd, 'C-1013', { date: '2020-01-15' });
    expect(body.code).toBe('period-closed');
    expect(body.numbers.open).toMatch(/^\d{4}-\d{2}/);
  });

  it('is refused when the figures are no longer those that were shown', async () => {
    await clear('C-1003');
    const { claim, document, digest } = await view('C-1003');
    await api.owner('rates').where({ to_currency: 'KES' }).update({ rate: 150 });
    expect(
      (
        await odd.post('/journals', {
          claim: 'C-1003',
          revision: claim.revision,
          date: document.postingDate,
          digest,
          key: 'older-figures',
        })
      ).body.code,
    ).toBe('figures-changed');
    expect((await post(odd, 'C-1003')).status).toBe(201);
  });
});

describe('reversing', () => {
  const outstanding = async () =>
    (await api.owner('advance_movements').where({ advance_id: 'A-031' }).sum('part as part').first())!.part;
  const reverse = (number: string, fields: object = {}) =>
    odd.post(`/journals/${number}/reversal`, {
      date: today,
      reason: 'Wrong grant',
      key: `reverse-${Math.random()}`,
      ...fields,
    });
  const today = new Date().toISOString().slice(0, 10);

  it('exchanges the sides, points both ways, gives advances back, and lets the claim be posted again', async () => {
    const number = (await view('C-1003')).journals.at(-1).number;
    expect(await outstanding()).not.toBe('6000000');
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
    expect(await outstanding()).toBe('6000000');
    const { claim } = await view('C-1003');
    expect(claim.state).toBe('reversed');
    await maeve.post('/claims/C-1003/reopen', { revision: claim.revision });
    await clear('C-1003');
    expect((await post(odd, 'C-1003')).status).toBe(201);
    expect(await liveCount('C-1003')).toBe(1);
  });

  it('happens once, and not for a reversal, a paid claim or a closed period', async () => {
    const { number } = (await view('C-1017')).journals[0];
    expect((await reverse(number, { date: '2020-01-15' })).body.code).toBe('period-closed');
    const answers = await Promise.all([reverse(number), reverse(number)]);
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409]);
    expect((await reverse(answers.find((a) => a.status === 201)!.body.journal)).body.code).toBe('not-live');
    const paid = (await view('C-1021')).journals[0].number;
    expect((await reverse(paid)).body.code).toBe('wrong-state');
    expect((await reverse('IE-999999')).status).toBe(404);
  });
});

describe('reading the ledger', () => {
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
