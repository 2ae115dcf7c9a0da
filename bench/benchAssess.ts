import { isDeepStrictEqual } from 'node:util';
import { assess } from '../core/assess/assess.ts';
import { explainLine } from '../core/explain/explainLine.ts';
import type { Case, Line } from '../core/documents/case.schema.ts';
import { makeCase, valid } from '../test/fixtures/caseBuilder.ts';
import { plainAssess } from '../test/plain/plainAssess.ts';
import { plainOf, readPlain } from '../test/plain/readPlain.ts';
import { median, type Row } from './measure.ts';

const CURRENCIES = ['EUR', 'USD', 'JPY'];

/** A claim of lines in three currencies, taxed, each split six ways. */
function bigCase(count: number): Case {
  const lines = Array.from({ length: count }, (_, i): Line => {
    const currency = CURRENCIES[i % 3]!;
    const amount =
      currency === 'JPY' ? String(10_000 + i * 7) : `${100 + (i % 900)}.${String(i % 100).padStart(2, '0')}`;
    const shares = Array.from({ length: 6 }, (_, k) => ({
      coding: { costCentre: String(410 + k) },
      value: String(k + 1),
    }));
    return {
      id: String(i + 1),
      date: '2026-03-02',
      paidBy: 'own',
      category: 'supplies',
      amount,
      currency,
      tax: [{ code: i % 2 ? 'IE-23' : 'CA-5-7' }],
      split: { by: 'weight', shares },
    };
  });
  const rates = [
    { from: 'EUR', to: 'USD', date: '2026-03-02', rate: '1.0834' },
    { from: 'EUR', to: 'JPY', date: '2026-03-02', rate: '163.4' },
  ];
  return valid(makeCase({ lines, claim: { currency: 'USD' }, book: { rates } }));
}

export async function* benchAssess(): AsyncGenerator<Row> {
  const document = bigCase(1000);
  const plain = readPlain(document);
  if (!isDeepStrictEqual(plainOf(assess(document)), plainAssess(plain)))
    throw new Error('the baseline has other figures');
  const baseline = 'the same figures straight-line';
  const plainTime = await median(() => plainAssess(plain));
  const time = await median(() => assess(document));
  yield { what: 'assess, 1,000 lines in three currencies, split six ways', baseline, ratio: time / plainTime, aim: 5 };

  const perLine = async (count: number) => {
    const sized = bigCase(count);
    return (await median(() => assess(sized), 9)) / count;
  };
  const ten = await perLine(10);
  for (const count of [100, 1000, 5000])
    yield {
      what: `assess, cost of a line among ${count.toLocaleString('en')}`,
      baseline: 'the cost of a line among 10',
      ratio: (await perLine(count)) / ten,
      aim: null,
    };

  yield {
    what: 'explaining one line of 1,000',
    baseline: 'assessing the 1,000',
    ratio: (await median(() => explainLine(document, '500'))) / time,
    aim: null,
  };
}
