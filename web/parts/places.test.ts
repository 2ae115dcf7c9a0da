import { expect, it } from 'vitest';
import { homeOf, placesOf } from './places.ts';

const person = (...roles: string[]) => ({ roles }) as never;
const names = (...roles: string[]) => placesOf(person(...roles)).map((p) => p.name);

it('shows the Desk and the Ledger to finance and auditors alone', () => {
  expect(names('claimant')).toEqual(['Plans', 'Gather', 'Claims']);
  expect(names('claimant', 'approver', 'preparer', 'administrator')).toEqual(['Plans', 'Gather', 'Claims']);
  for (const role of ['reviewer', 'controller', 'auditor'])
    expect(names(role)).toEqual(['Plans', 'Gather', 'Claims', 'Desk', 'Ledger']);
});

it('begins at the queue for whoever has one', () => {
  expect([homeOf(person('claimant')), homeOf(person('claimant', 'controller'))]).toEqual(['/claims', '/desk']);
});
