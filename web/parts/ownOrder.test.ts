import { describe, expect, it } from 'vitest';
import { ownOrder } from './ownOrder.ts';

const CODES = ['10', '20', '30', '40'].map((code) => ({ code, name: code }));
const OWN = {
  recent: [
    { dimension: 'fund', codes: ['30', '99', '20'] },
    { dimension: null, codes: ['40'] },
  ],
  favourites: [
    { dimension: 'fund', code: '20' },
    { dimension: null, code: '10' },
  ],
  codings: [],
};
const said = (dimension: string | null) =>
  ownOrder(CODES, OWN, dimension).map((c) => `${c.code} ${c.first ?? ''}`.trim());

describe('the order of codes', () => {
  it('begins with what is kept first, then what was used last, newest first, each once', () => {
    expect(said('fund')).toEqual(['20 kept first', '30 recent', '10', '40']);
  });
  it('knows categories by themselves', () => {
    expect(said(null)).toEqual(['10 kept first', '40 recent', '20', '30']);
  });
  it('leaves codes as they are while nothing is known', () => {
    expect(ownOrder(CODES, undefined, 'fund')).toEqual(CODES);
  });
});
