import type { Facts } from './facts.ts';

export interface Words {
  due: string;
  net: string;
  tax: string;
  paid: string;
  taxNumber: string;
  served: string;
}
const ENGLISH: Words = {
  due: 'Balance due',
  net: 'Net',
  tax: 'VAT',
  paid: 'Paid by card',
  taxNumber: 'VAT registration',
  served: 'You were served by',
};
const WORDS: Record<string, Words> = {
  DE: {
    due: 'Gesamtbetrag',
    net: 'Netto',
    tax: 'USt',
    paid: 'Girokarte',
    taxNumber: 'UID-Nr.',
    served: 'Es bediente Sie',
  },
  FR: {
    due: 'Net à payer',
    net: 'Hors taxes',
    tax: 'TVA',
    paid: 'Réglé par carte',
    taxNumber: 'TVA intracom.',
    served: 'Servi par',
  },
  NO: {
    due: 'Totalt',
    net: 'Netto',
    tax: 'mva.',
    paid: 'Betalt med kort',
    taxNumber: 'Foretaksnr.',
    served: 'Betjent av',
  },
  US: { ...ENGLISH, due: 'Total charge', tax: 'Tax', paid: 'Charged to card', taxNumber: 'EIN' },
  GB: { ...ENGLISH, due: 'Amount payable' },
  T: { ...ENGLISH, due: 'Total amount', tax: 'Consumption tax', taxNumber: 'Registration No' },
  BH: { ...ENGLISH, due: 'Net payable' },
};
/** The words of a receipt's country that the layouts after the first ones use. */
export const wordsOf = (f: Facts): Words => WORDS[f.locale.prefix] ?? ENGLISH;

export const money = (f: Facts, minor: number): string => f.locale.number(minor);
