import { isValidIBAN } from 'ibantools';
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

/** Source: the package ibantools, with the examples of the IBAN registry (ISO 13616), from memory. */
describe('account numbers of several countries', () => {
  const EXAMPLES = [
    'DE89370400440532013000',
    'FR1420041010050500013M02606',
    'NO9386011117947',
    'SE4550000000058398257466',
    'DK5000400440116243',
    'IE29AIBK93115212345678',
    'NL91ABNA0417164300',
    'BE68539007547034',
    'ES9121000418450200051332',
    'PT50000201231234567890154',
    'IT60X0542811101000000123456',
    'CH9300762011623852957',
  ];
  it.each(EXAMPLES)('%s: the package and the check agree on it and on its neighbours', (iban) => {
    expect([isValidIBAN(iban), isIban(iban)]).toEqual([true, true]);
    const wrong = iban.slice(0, 2) + String((Number(iban[2]) + 1) % 10) + iban.slice(3);
    expect([isValidIBAN(wrong), isIban(wrong)]).toEqual([false, false]);
  });
});
