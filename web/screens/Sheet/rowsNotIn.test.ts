import { expect, it } from 'vitest';
import { rowsNotIn } from './rowsNotIn.ts';

it('only rows that an edit changed are marked, whatever the order of their fields', () => {
  const before = [{ account: '6220', debit: '5.00', coding: { fund: '10', project: 'P' } }];
  const same = { coding: { project: 'P', fund: '10' }, debit: '5.00', account: '6220' };
  const other = { ...same, debit: '2.50' };
  expect(rowsNotIn<object>(before, [same, other])).toEqual([other]);
  expect(rowsNotIn<object>(before, [same])).toEqual([]);
});
