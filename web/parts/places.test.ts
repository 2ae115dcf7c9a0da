import { expect, it } from 'vitest';
import { homeOf, placesOf } from './places.ts';

const person = (...roles: string[]) => ({ roles }) as never;
const names = (...roles: string[]) => placesOf(person(...roles)).map((p) => p.name);

it('shows a place to those whose roles it is for', () => {
  expect(names('claimant')).toEqual(['Plans', 'Advances', 'Gather', 'Claims']);
  expect(names('claimant', 'preparer')).toEqual(['Plans', 'Advances', 'Gather', 'Claims']);
  expect(names('approver')).toEqual(['Plans', 'Advances', 'Gather', 'Claims', 'Approvals']);
  expect(names('administrator')).toEqual(['Plans', 'Advances', 'Gather', 'Claims', 'Approvals', 'Setup']);
  for (const role of ['reviewer', 'controller'])
    expect(names(role)).toEqual(['Plans', 'Advances', 'Gather', 'Claims', 'Approvals', 'Desk', 'Ledger']);
  expect(names('auditor')).toEqual(['Plans', 'Advances', 'Gather', 'Claims', 'Desk', 'Ledger', 'Setup']);
});

it('begins at the queue for whoever has one', () => {
  expect([homeOf(person('claimant')), homeOf(person('claimant', 'controller'))]).toEqual(['/claims', '/desk']);
});
