import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clear, handIn, mark, viewOf } from '../../../test/fixtures/acts.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** What is looked up beside a claim: earlier versions with what still holds, its person, what used its budgets; who is next. */
let api: TestApi;
let maeve: Client;
let tomas: Client;
beforeAll(async () => {
  api = await startApi('beside');
  [maeve, tomas] = await Promise.all([api.as('maeve.tarrant'), api.as('tomas.brandao')]);
});
afterAll(() => api.close());

const minor = (amount: string) => Math.round(Number(amount) * 100);
const sum = (amounts: string[]) => amounts.reduce((a, amount) => a + minor(amount), 0);

describe('a claim that comes back', () => {
  const NUMBER = 'C-1001';
  it('keeps what was said of comparisons that are the same, and is asked again about the others', async () => {
    const before = await viewOf(maeve, NUMBER);
    const loose = before.ties.filter((t: any) => t.shown === 'off' || t.shown === 'open');
    expect(loose.length).toBeGreaterThan(1);
    for (const { line, kind } of loose) await mark(maeve, NUMBER, { line, kind, mark: 'waived', reason: 'Agreed' });
    const { claim } = await viewOf(maeve, NUMBER);
    await maeve.post(`/claims/${NUMBER}/return`, { revision: claim.revision, reason: 'Once more, please' });
    const [changed, same] = loose;
    const mine = await viewOf(tomas, NUMBER);
    const line = mine.document.lines.find((l: any) => l.id === changed.line);
    const amount = { amount: (Number(line.amount) - 1).toFixed(2), currency: line.currency };
    await tomas.put(`/drafts/${NUMBER}/lines/${line.id}`, { revision: mine.claim.revision, set: { amount } });
    expect((await handIn(tomas, NUMBER, 'resubmit')).status).toBe(200);
    const siobhan = await api.as('siobhan.odowd');
    const asked = await viewOf(siobhan, NUMBER);
    await siobhan.post(`/claims/${NUMBER}/approve`, { revision: asked.claim.revision });
    const again = await viewOf(maeve, NUMBER);
    const shown = ({ line: id, kind }: any) => again.ties.find((t: any) => t.line === id && t.kind === kind).shown;
    expect([again.claim.version, shown(same), shown(changed)]).toEqual([2, 'waived', 'off']);
    expect(again.marks.find((m: any) => m.line === same.line && m.kind === same.kind).by).toBe('Maeve Tarrant');
  });
  it('is shown as it was, to finance alone', async () => {
    const one = (await maeve.get(`/claims/${NUMBER}/versions/1`)).body;
    const now = await viewOf(maeve, NUMBER);
    expect([one.version, one.claim.lines.length]).toEqual([1, now.document.claim.lines.length]);
    expect(one.claim.lines).not.toEqual(now.document.claim.lines);
    expect((await maeve.get(`/claims/${NUMBER}/versions/9`)).body.code).toBe('not-found');
    expect((await tomas.get(`/claims/${NUMBER}/versions/1`)).status).toBe(403);
    expect((await maeve.get('/claims/C-1007/versions/1')).body.code).toBe('not-found');
  });
});

describe('the person of a claim', () => {
  it('is told by what was stored of their claims within a year, private parts left out', async () => {
    const { body } = await maeve.get('/claims/C-1001/person');
    expect(body).toMatchObject({ name: 'Tomás Brandão', currency: 'EUR' });
    const stored = await api
      .owner('claims as c')
      .join('assessments as a', (on) => on.on('a.claim_id', 'c.id').andOn('a.version', 'c.submitted_version'))
      .where({ claimant_id: 'P05', entity_id: 'IE' })
      .where('c.submitted_on', '>=', body.since)
      .whereNotIn('c.state', ['declined', 'withdrawn'])
      .pluck('a.result');
    expect(body.claims).toBe(stored.length);
    const parts = stored.flatMap((r) => r.lines.flatMap((l: any) => l.parts)).filter((p: any) => !p.personal);
    expect(sum(body.spent.map((s: any) => s.amount))).toBe(sum(parts.map((p: any) => p.ledgerAmount ?? '0')));
    expect(body.returned).toBe(
      (
        await api
          .owner('events as e')
          .join('claims as c', 'c.number', 'e.record_id')
          .where({ kind: 'returned', claimant_id: 'P05' })
      ).length,
    );
    const merchants = new Set(
      (await viewOf(maeve, 'C-1001')).document.claim.lines.map((l: any) => l.merchant?.toLowerCase()),
    );
    for (const m of body.sameMerchants)
      expect([merchants.has(m.merchant.toLowerCase()), m.claim]).toEqual([true, m.claim]);
    expect(body.sameMerchants.some((m: any) => m.claim === 'C-1001')).toBe(false);
  });
  it('leaves out what was cut of a card charge, which is private', async () => {
    const spent = async () => sum((await maeve.get('/claims/C-1006/person')).body.spent.map((s: any) => s.amount));
    const { claim, document, assessment } = await viewOf(maeve, 'C-1006');
    const line = document.claim.lines.find((l: any) => l.paidBy === 'card' && !l.personal && !l.items?.length);
    const before = await spent();
    const set = { cut: { amount: '5.00', reason: 'Wine' } };
    const { body } = await maeve.put('/claims/C-1006/lines', {
      revision: claim.revision,
      corrections: [{ line: line.id, set }],
    });
    const figures = (of: any) => of.lines.find((l: any) => l.id === line.id);
    const [, cut] = figures(body.assessment).parts;
    expect([cut.personal, minor(cut.ledgerAmount) > 0]).toEqual([true, true]);
    expect(figures(body.assessment).ledgerAmount).toBe(figures(assessment).ledgerAmount);
    expect(before - (await spent())).toBe(minor(cut.ledgerAmount));
  });
  it('is nobody’s business but finance’s, and not their own', async () => {
    expect((await tomas.get('/claims/C-1001/person')).status).toBe(403);
    expect((await maeve.get('/claims/C-1007/person')).body.code).toBe('not-found');
  });
});

describe('the budgets of a claim', () => {
  it('add up: what there is, less what others have, less this claim, is what is left', async () => {
    const { claims } = (await maeve.get('/claims')).body;
    let seen = 0;
    for (const { number } of claims.filter((c: any) => !c.own)) {
      for (const b of (await maeve.get(`/claims/${number}/budgets`)).body.budgets) {
        seen += 1;
        expect(minor(b.left)).toBe(minor(b.amount) - sum([b.posted, b.cleared, b.reserved, b.thisClaim]));
        expect(sum(b.uses.map((u: any) => u.amount))).toBe(sum([b.posted, b.cleared, b.reserved]));
        expect(b.uses.some((u: any) => u.id === number)).toBe(false);
      }
    }
    expect(seen).toBeGreaterThan(0);
  });
  it('do not count a claim twice once it is cleared', async () => {
    const { claims } = (await maeve.get('/claims')).body;
    for (const { number } of claims.filter((c: any) => !c.own && c.stops === 0)) {
      const before = (await maeve.get(`/claims/${number}/budgets`)).body.budgets;
      if (before.length === 0 || (await clear(maeve, number)).status !== 200) continue;
      expect((await maeve.get(`/claims/${number}/budgets`)).body.budgets).toEqual(before);
      return;
    }
    throw new Error('The demo has no claim that charges a budget and can be cleared.');
  });
});

describe('the next claim', () => {
  it('is given to one of two who go on at the same moment, and is passed over while somebody has it', async () => {
    const numbers = ['C-1007', 'C-1010', 'C-1004', 'C-1003'];
    const next = async (who: Client) => (await who.post('/desk/next', { numbers })).body.number;
    const other = await api.as('ines.quadros', api.second);
    const leave = (who: Client) => Promise.all(numbers.map((n) => who.send('DELETE', `/claims/${n}/here`)));
    let both: string[] = [];
    for (let round = 0; round < 20; round += 1) {
      await Promise.all([leave(maeve), leave(other)]);
      both = await Promise.all([next(maeve), next(other)]);
      expect([round, new Set(both).size, both.includes(null as never)]).toEqual([round, 2, false]);
    }
    const noor = await api.as('noor.aldosari', api.second);
    const third = (await noor.post('/desk/next', { numbers: both })).body.number;
    expect(third).toBeNull();
    expect(await next(maeve)).not.toBe('C-1007');
  });
  it('is taken by one person after the other, however near to each other they ask', async () => {
    let taken: Promise<string> | undefined;
    await api.owner.transaction(async (trx) => {
      await trx.raw(`select pg_advisory_xact_lock(hashtext('desk next'))`);
      let answered = false;
      taken = maeve.post('/desk/next', { numbers: ['C-1010'] }).then(({ body }) => {
        answered = true;
        return body.number;
      });
      await new Promise((resolve) => setTimeout(resolve, 400));
      expect(answered).toBe(false);
    });
    expect(await taken).toBe('C-1010');
  });
});
