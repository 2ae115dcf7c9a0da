import { describe, expect, it } from 'vitest';
import { checkDigits97, isCreditorReference, isIban } from '../../core/numbers/mod97.ts';

/** Source: ISO 7064 MOD 97-10, the example of its text; ISO 13616 and ISO 11649 examples. From memory. */
describe('check digits', () => {
  it('of "0794" are 44', () => {
    expect(checkDigits97('0794')).toBe('44');
  });
  it.each(['GB82WEST12345698765432', 'GB29 NWBK 6016 1331 9268 19', 'gb29nwbk60161331926819'])(
    'hold in the account number %s',
    (text) => {
      expect(isIban(text)).toBe(true);
    },
  );
  it.each(['GB82WEST12345698765433', 'GB28WEST12345698765432', 'GB82WEST1234569876543Z', 'GB82', ''])(
    'do not hold in %j',
    (text) => {
      expect(isIban(text)).toBe(false);
    },
  );
  it('hold in the creditor reference RF18539007547034, and in no neighbour of it', () => {
    expect(isCreditorReference('RF18 5390 0754 7034')).toBe(true);
    expect(['RF18539007547035', 'RF19539007547034', 'RF18', 'XX18539007547034'].some(isCreditorReference)).toBe(false);
  });
  it('catch every exchange of two neighbouring characters', () => {
    const code = 'GB82WEST12345698765432';
    for (let i = 2; i < code.length - 1; i += 1) {
      if (code[i] === code[i + 1]) continue;
      const swapped = code.slice(0, i) + code[i + 1] + code[i] + code.slice(i + 2);
      expect([swapped, isIban(swapped)]).toEqual([swapped, false]);
    }
  });
});
