import { startApi, type Client } from '../test/fixtures/startApi.ts';
import { makeTemplate } from './makeTemplate.ts';
import { inTurns, share, type Row } from './measure.ts';

const LONG = [300, 1000];
const ROUNDS = 30;

/** A cell saved in a claim that is being written, over HTTP, as its page does: beside the same cell of a claim with one line. */
export async function* benchCell(): AsyncGenerator<Row> {
  makeTemplate();
  const api = await startApi('bench_cell');
  try {
    const tomas = await api.as('tomas.brandao');
    const save = await cellOf(tomas, 1);
    for (const lines of LONG) {
      const saveLong = await cellOf(tomas, lines);
      const times = await inTurns({ one: save, long: saveLong }, ROUNDS);
      yield {
        what: `a cell saved among ${lines.toLocaleString('en')} lines, p50 (${Math.round(share(times.long, 0.5))} ms)`,
        baseline: 'the same of a claim with one line',
        ratio: share(times.long, 0.5) / share(times.one, 0.5),
        aim: lines === LONG[0] ? 4 : null,
      };
    }
  } finally {
    await api.close();
  }
}

/** A draft of so many lines, and how its cells are saved one after the other. */
async function cellOf(person: Client, count: number): Promise<() => Promise<void>> {
  const coding = { costCentre: '430', fund: '10' };
  const { number } = (await person.post('/drafts', { purpose: `Cells among ${count}`, coding })).body;
  const lines = Array.from({ length: count }, (_, i) => ({
    date: '2026-11-02',
    amount: { amount: `${10 + (i % 90)}.50`, currency: 'EUR' },
    category: 'supplies',
    merchant: `Quay Stores ${i + 1}`,
  }));
  let { revision } = (await person.post(`/drafts/${number}/lines`, { revision: 1, lines })).body.claim;
  let round = 0;
  return async () => {
    round += 1;
    const line = 1 + (round % count);
    const set = { merchant: `Quay Stores ${line} of round ${round}` };
    const { body, status } = await person.put(`/drafts/${number}/lines/${line}`, { revision, set });
    if (status !== 200) throw new Error(body.says);
    ({ revision } = body.claim);
  };
}
