import { describe, expect, it } from 'vitest';
import { sayAbout, sayDetour, saySkip } from './sayRoute.ts';

describe('the words of a route', () => {
  it('say who decides in whose place, and why', () => {
    expect(sayDetour({ person: 'Bo', why: 'away', to: 'Eve', as: 'substitute' })).toBe(
      'Bo: they are away; Eve decides, their substitute',
    );
    expect(sayDetour({ person: 'Bo', why: 'own', to: 'Cy', as: 'above' })).toBe(
      'Bo: it is their own; Cy decides, who is above them',
    );
    expect(sayDetour({ person: 'Bo', why: 'left', to: null, as: null })).toBe(
      'Bo: they have left; nobody is above them',
    );
  });
  it('say what a decision is about, without an amount where it is not known', () => {
    const about = [
      { dimension: 'grant', code: 'G-1', amount: '1200.00' },
      { dimension: 'project', code: 'P-1', amount: null },
    ];
    expect(sayAbout(about, 'EUR')).toBe('grant G-1 (1\u2009200.00 EUR), project P-1');
  });
  it('say why nobody is asked', () => {
    const say = (skip: Parameters<typeof saySkip>[0]) => saySkip(skip, 'EUR');
    expect(say({ why: 'below', total: '99.500', currency: 'BHD', limit: '100.000' })).toBe(
      'only above 100.000 BHD; this is 99.500',
    );
    expect(say({ why: 'no owner', dimension: 'grant', code: 'G-1' })).toBe('nobody owns grant G-1');
    const already = { why: 'decides already' as const, person: 'Bo', place: 1, detours: [] };
    expect(say({ ...already, about: [] })).toBe('Bo decides already at step 1');
    expect(say({ ...already, about: [{ dimension: 'grant', code: 'G-1', amount: '1.00' }] })).toBe(
      'Bo decides already at step 1, also about grant G-1 (1.00 EUR)',
    );
    expect(say({ why: 'nobody', about: [], detours: [] })).toBe('nobody can decide here');
  });
});
