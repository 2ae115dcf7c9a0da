import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** References as banks really use them: numbered anew each month, shared, repeated by what reverses them, or one word. */
let api: TestApi;
let odd: Client;
beforeAll(async () => {
  api = await startApi('references');
  odd = await api.as('odd.fjellheim');
});
afterAll(() => api.close());

const mapping = {
  delimiter: ';',
  mark: '.',
  order: 'ymd',
  spent: 'positive',
  date: 0,
  amount: 1,
  merchant: 2,
  reference: 3,
  ...Object.fromEntries(
    ['purchased', 'originalAmount', 'originalCurrency', 'categoryCode', 'credit', 'side', 'currency'].map((f) => [
      f,
      null,
    ]),
  ),
};
let file = 0;
async function take(rows: string[]) {
  const form = new FormData();
  form.append('options', JSON.stringify({ card: '4410', mapping }));
  form.append('file', new Blob([`Date;Amount;Merchant;Reference\n${rows.join('\n')}\n`]), `${(file += 1)}.csv`);
  const { body } = await odd.send('POST', '/statements', form);
  const { entries, added, known, state } = body.outcomes[0];
  expect(state).not.toBe('refused');
  expect(added + known).toBe(entries);
  return added as number;
}

describe('a charge is never dropped', () => {
  it.each([
    [
      'numbers that begin anew each month',
      ['2032-01-02;5.00;Quay;1', '2032-01-03;6.00;Quay;2'],
      ['2032-02-02;5.00;Quay;1', '2032-02-03;7.00;Quay;2'],
    ],
    ['a number for a batch', ['2032-03-02;5.00;Quay;B7', '2032-03-02;6.00;Quay;B7', '2032-03-02;6.00;Pier;B7'], []],
    ['the number of what is reversed', ['2032-04-02;5.00;Quay;R1', '2032-04-02;-5.00;Quay;R1'], []],
    [
      'one word on all rows',
      ['2032-05-02;5.00;Quay;CARD', '2032-05-02;5.00;Quay;CARD', '2032-05-03;5.00;Quay;CARD'],
      [],
    ],
  ])('by %s, and none is taken twice', async (_name, first, second) => {
    expect(await take(first)).toBe(first.length);
    if (second.length) expect(await take(second)).toBe(second.length);
    expect(await take([...first, ...second])).toBe(0);
  });
});
