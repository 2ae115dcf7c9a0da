import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readAmount } from '../../core/numbers/amount.ts';
import { people as firstPeople } from '../people.ts';
import { CLAIMS, yearClaims } from './claims.ts';
import { putFaults } from './faults.ts';
import { APPROVERS, people } from './organisation.ts';

const year = () => {
  const claims = yearClaims();
  return { claims, put: putFaults(claims) };
};

describe('the year of the demo', () => {
  it('is the same every time, and large: four entities, forty people, claims in every state', () => {
    const { claims } = year();
    expect(year().claims).toEqual(claims);
    expect(claims).toHaveLength(CLAIMS);
    expect(claims.reduce((a, c) => a + c.lines.length, 0)).toBeGreaterThan(4500);
    expect(new Set(claims.map((c) => c.entity))).toEqual(new Set(['IE', 'NO', 'JP', 'BH']));
    expect([...firstPeople, ...people]).toHaveLength(40);
    expect(new Set(claims.map((c) => c.state)).size).toBe(12);
  });

  it('has amounts of their currencies, and nobody who claims what they approve or review', () => {
    for (const claim of year().claims) {
      expect(['P02', 'P03', ...Object.values(APPROVERS)]).not.toContain(claim.claimant);
      for (const line of claim.lines) {
        expect([line.amount, readAmount(line.amount, line.currency!)]).not.toContain(null);
        const { amount, currency = line.currency! } = line.receipt ?? {};
        if (amount) expect([amount, readAmount(amount, currency)]).not.toContain(null);
      }
    }
  });

  it('has a dozen mistakes and a handful of tricks, each on a claim in review that the README names', () => {
    const { claims, put } = year();
    const readme = readFileSync('README.md', 'utf8').replace(/\s+/g, ' ');
    expect(put.filter((p) => p.fault.kind === 'mistake')).toHaveLength(12);
    expect(put.filter((p) => p.fault.kind === 'trick')).toHaveLength(4);
    for (const { number, fault } of put) {
      expect(claims.find((c) => c.number === number)!.state).toBe('in review');
      expect(readme).toContain(`${number}: ${fault.says}`);
    }
  });
});
