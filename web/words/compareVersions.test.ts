import { describe, expect, it } from 'vitest';
import { line, makeCase, valid, type CaseParts } from '../../test/fixtures/caseBuilder.ts';
import { assess } from '../../core/assess/assess.ts';
import { changesSince, sinceOf, sayValue } from './compareVersions.ts';

const version = (parts: CaseParts) => {
  const document = valid(makeCase(parts));
  return { claim: document.claim, assessment: assess(document) };
};
/** Of a claim as it is seen now, since a version before. */
const changes = (before: CaseParts, now: CaseParts) => {
  const { claim, assessment } = version(now);
  return changesSince(version(before), { document: { claim }, assessment });
};

describe('the version that changes are shown since', () => {
  it('is the chosen one, else the one somebody looked at, else the last one', () => {
    expect([sinceOf(1, 2, 5), sinceOf(null, 2, 5), sinceOf(null, null, 5)]).toEqual([1, 2, 4]);
  });
});

describe('what changed from one version to another', () => {
  it('is nothing where nothing did; missing, null and false say the same', () => {
    expect(changes({ lines: [line()] }, { lines: [line({ personal: false, split: null, coding: {} })] })).toEqual([]);
  });
  it('is told line by line and field by field, old and new', () => {
    const [only] = changes(
      { lines: [line({ amount: '20.00', merchant: 'Quay Café' })] },
      { lines: [line({ amount: '18.50', merchant: 'Quay Café', coding: { costCentre: '420', fund: '10' } })] },
    );
    expect(only).toEqual({
      line: '1',
      title: 'Quay Café 18.50 EUR',
      kind: 'changed',
      fields: [
        { field: 'amount', before: '20.00 EUR', now: '18.50 EUR' },
        { field: 'coding', before: '–', now: '420 · 10' },
      ],
    });
  });
  it('names lines that came and went, and what is said of the claim itself', () => {
    const all = changes(
      { lines: [line(), line({ id: '2' })], claim: { purpose: 'Terns' } },
      { lines: [line(), line({ id: '3' })], claim: { purpose: 'Terns and waders' } },
    );
    expect(all.map((c) => [c.line, c.kind])).toEqual([
      [null, 'changed'],
      ['2', 'gone'],
      ['3', 'new'],
    ]);
    expect(all[0]!.fields).toEqual([{ field: 'purpose', before: 'Terns', now: 'Terns and waders' }]);
  });
  it('says values in words', () => {
    const split = {
      by: 'percent',
      shares: [
        { coding: { costCentre: '410' }, value: '50' },
        { coding: {}, value: 'rest' },
      ],
    };
    expect(sayValue(split, 'EUR')).toBe('by percent: 410 · 50, rest');
    expect([sayValue(true, ''), sayValue(3, ''), sayValue([{ code: 'IE-23', gross: '10.00' }], 'EUR')]).toEqual([
      'yes',
      '3',
      'IE-23 · 10.00 EUR',
    ]);
  });
});
