import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { reasonOf } from '../../../core/evidence/duplicates/findDuplicates.ts';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { MOST_CANDIDATES, selectCandidates } from './evidence.queries.ts';

/** What looks alike is found by keys that are kept with the lines; how much there is of it costs nobody else anything. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
beforeAll(async () => {
  api = await startApi('duplicates');
  of = await claimsOfTomas(api);
});
afterAll(() => api.close());

const same = (count: number) =>
  Array.from({ length: count }, () => ({ ...of.line('12.00'), merchant: 'Quay Stores', date: daysAgo(3) }));
const keyOf = async (number: string) => ({
  claim_id: (await api.owner('claims').where({ number }).first('id')).id as bigint,
  version: 1,
});

describe('lines that are alike', () => {
  it('are those a plain comparison of everything finds, on random lines', async () => {
    let seed = 7;
    const pick = <T>(all: readonly T[]): T => all[(seed = (seed * 48271) % 2147483647) % all.length]!;
    const names = ['Quay Stores', 'QUAY STORES DUBLIN', 'Petrel Print', 'Stores', 'Pier', 'Quay'];
    const lines = () =>
      Array.from({ length: 25 }, () => ({
        ...of.line(pick(['5.00', '6.00', '0.00'])),
        ...{ merchant: pick(names), date: daysAgo(pick([2, 3, 4, 5, 7, 8])), currency: 'EUR' },
      })).map(({ currency: _, ...line }) => line);
    const numbers = [await of.draft(lines()), await of.draft(lines()), await of.draft(lines())];
    await api
      .owner('claims')
      .whereIn('number', numbers)
      .update({ state: 'in review', submitted_version: 1, submitted_on: daysAgo(0) });
    const rows = await api
      .owner('lines as l')
      .join('claims as c', 'c.id', 'l.claim_id')
      .whereNotIn('c.state', ['draft', 'withdrawn', 'declined'])
      .whereRaw('l.version = c.version')
      .select('c.number', 'l.id', 'l.amount', 'l.currency', 'l.date', 'l.merchant');
    const bare = ({ number, id, ...row }: any) => ({
      ...row,
      id: `${number}/${id}`,
      receipt: null,
      likeness: null,
      shows: null,
      charge: null,
    });
    const mine = rows.filter((r: any) => r.number === numbers[0]);
    const plain = mine.flatMap((a: any) =>
      rows
        .filter((b: any) => b.number !== numbers[0] && reasonOf(bare(a), bare(b)) !== null)
        .map((b: any) => `${a.id} ${b.number} ${b.id}`),
    );
    const { candidates, cut } = await selectCandidates(api.owner, await keyOf(numbers[0]!));
    const found = candidates
      .filter(
        (c) =>
          c.claim !== numbers[0]
          && reasonOf({ ...c.own, receipt: null, likeness: null }, { ...c, receipt: null, likeness: null }),
      )
      .map((c) => `${c.ofLine} ${c.claim} ${c.line}`);
    expect(new Set(found)).toEqual(new Set(plain));
    expect(plain.length).toBeGreaterThan(20);
    expect(cut.size).toBe(0);
  });
  it('follow a line that changes, is divided or goes', async () => {
    const number = await of.draft([{ ...of.line('77.00'), merchant: 'Avocet Ferries' }]);
    const { claim_id } = await keyOf(number);
    const keys = async () =>
      (await api
        .owner('line_keys')
        .where({ claim_id: String(claim_id) })
        .orderBy('key')
        .pluck('key')) as string[];
    expect(await keys()).toEqual(['EUR 7700 avo', 'EUR 7700 fer']);
    const set = { amount: { amount: '78.00', currency: 'EUR' }, merchant: 'Pier' };
    of.fine(await of.by.tomas.put(`/drafts/${number}/lines/1`, { revision: await of.revisionOf(number), set }));
    expect(await keys()).toEqual(['EUR 7800 pie']);
    await api
      .owner('lines')
      .where({ claim_id: String(claim_id) })
      .delete();
    expect(await keys()).toEqual([]);
  });
  it('cost what the claim has lines, however many are alike: as many again are not looked at', async () => {
    const taken = async (number: string) => {
      const { claim_id, version } = await keyOf(number);
      const { candidates, cut } = await selectCandidates(api.owner, { claim_id, version });
      return { most: candidates.length, cut: cut.size };
    };
    const numbers = [];
    for (let i = 0; i < 3; i += 1) numbers.push(await of.draft(same(500)));
    // drafts are nobody's duplicates, and so many are taken up that nobody can say there is none: it says so
    expect(await taken(numbers[2]!)).toEqual({ most: 0, cut: 500 });
    await api
      .owner('claims')
      .whereIn('number', numbers)
      .update({ state: 'in review', submitted_version: 1, submitted_on: daysAgo(0) });
    const all = await taken(numbers[2]!);
    expect(all.cut).toBe(500);
    expect(all.most).toBeLessThanOrEqual(500 * MOST_CANDIDATES);
  });
});

describe('two people', () => {
  it('do not wait for each other: what one pastes holds up nothing another one reads', async () => {
    const number = await of.draft([of.line('5.00')]);
    const order: string[] = [];
    const pasting = of.by.tomas
      .post(`/drafts/${number}/lines`, { revision: await of.revisionOf(number), lines: same(600) })
      .then((answer) => (order.push('pasted'), answer));
    await new Promise((resolve) => setTimeout(resolve, 50));
    for (let i = 0; i < 3; i += 1) {
      expect((await of.by.maeve.get('/claims')).status).toBe(200);
      order.push('read');
    }
    expect((await pasting).status).toBe(200);
    expect(order).toEqual(['read', 'read', 'read', 'pasted']);
  });
});
