import { describe, expect, it } from 'vitest';
import { wordsOf } from '../../../test/fixtures/wordsOf.ts';
import { readDocument } from './readDocument.ts';

const AS_OF = '2026-03-31';
const read = (text: string, confidence?: number) => readDocument(wordsOf(text, confidence), AS_OF);
const values = (text: string) => {
  const { amount, currency, date, merchant, taxes, taxNumber, cardDigits } = read(text);
  return {
    amount: amount?.value ?? null,
    currency: currency?.value ?? null,
    date: date?.value ?? null,
    merchant: merchant?.value ?? null,
    taxes: taxes.map((t) => [t.rate, t.tax]),
    taxNumber: taxNumber?.value ?? null,
    cardDigits: cardDigits?.value ?? null,
  };
};

const IRISH = `
#     QUAYSIDE SUPPLIES LTD
      Main Street, Wexford
      VAT No. IE6388047V
      12/03/2026            14:22
      Rope 10 m                        12.50
      Gloves x 2                        9.10
      Bucket                            4.40
      Subtotal                         26.00
      TOTAL  EUR                       26.00
      VAT 23%       21.14               4.86
      Card ************4410            26.00
`;

describe('a receipt', () => {
  it('gives total, currency, date, merchant, tax, tax number and card', () => {
    expect(values(IRISH)).toEqual({
      amount: '26.00',
      currency: 'EUR',
      date: '2026-03-12',
      merchant: 'QUAYSIDE SUPPLIES LTD',
      taxes: [['23', '4.86']],
      taxNumber: 'IE6388047V',
      cardDigits: '4410',
    });
  });

  it('is sure of a total the items add up to, and says why', () => {
    expect(read(IRISH).amount).toMatchObject({ sure: 'sure', because: 'the items above add up to it' });
  });

  it('is not sure of what was badly printed', () => {
    const { amount, date, merchant } = read(IRISH, 40);
    expect([amount!.sure, date!.sure, merchant!.sure]).not.toContain('sure');
  });

  it('says where a figure stands', () => {
    const { spot } = read(IRISH).amount!;
    expect(spot!.page).toBe(1);
    expect(spot!.box.x).toBeGreaterThan(0.4);
  });

  it('invents nothing where there is nothing', () => {
    expect(values('Thank you\nfor your visit')).toEqual({
      amount: null,
      currency: null,
      date: null,
      merchant: null,
      taxes: [],
      taxNumber: null,
      cardDigits: null,
    });
    expect(values('')).toMatchObject({ amount: null, merchant: null });
  });
});

describe('the total', () => {
  const cases: [string, string, string][] = [
    [
      'the cash less the change, not the cash',
      '#Ufer Bäcker\nBrot 3,20\nKuchen 4,30\nSumme EUR 7,50\nBar 20,00\nRückgeld 12,50',
      '7.50',
    ],
    ['the gross, not the net', '#Hafen Hotel GmbH\nNetto 100,00 €\nMwSt 19% 19,00 €\nGesamtbetrag 119,00 €', '119.00'],
    ['the French way', '#Librairie du Port\nTotal HT 10,00 €\nTVA 20% 2,00 €\nTotal TTC 12,00 €', '12.00'],
    [
      'with grouped thousands',
      '#Verleih Nord GmbH\nMiete 1.200,00 €\nReinigung 34,56 €\nZu zahlen 1.234,56 €',
      '1234.56',
    ],
    [
      'with spaces between thousands',
      '#Fjord Utstyr AS\nOrg.nr 987654321 MVA\nLeie 1 200,00\nVask 34,50\nÅ betale kr 1 234,50',
      '1234.50',
    ],
    ['without decimals', '#Kaigan Shokudo\n¥ 1,250\nTea ¥ 400\nTotal ¥ 1,650', '1650'],
    ['with three decimals', '#Pearl Taxi\nFare BD 3.250\nWaiting BD 1.000\nTotal BHD 4.250', '4.250'],
    ['under its label', '#Ferry\nEUR\nTOTAL\n18.40', '18.40'],
    ['of the whole, not the tax', '#Shop Ltd\nA 10.00\nB 13.00\nTotal tax £3.83\nTotal £23.00', '23.00'],
  ];
  it.each(cases)('is %s', (_, text, amount) => {
    expect(read(text).amount?.value).toBe(amount);
  });

  it('is doubtful when nothing names it', () => {
    expect(read('#Kiosk\nCoffee 2.40\nRoll 3.10 €').amount).toMatchObject({ value: '3.10', sure: 'doubtful' });
  });
});

describe('the date', () => {
  const cases: [string, string][] = [
    ['Date: 2026-03-05', '2026-03-05'],
    ['05.03.2026 10:15', '2026-03-05'],
    ['5. März 2026', '2026-03-05'],
    ['le 5 février 2026', '2026-02-05'],
    ['5 de março de 2026', '2026-03-05'],
    ['March 5, 2026', '2026-03-05'],
    ['2026年3月5日', '2026-03-05'],
    ['25/02/26', '2026-02-25'],
    ['02/25/2026', '2026-02-25'],
  ];
  it.each(cases)('%s is %s', (text, date) => {
    expect(read(`#Shop\n${text}\nTotal €10.00`).date?.value).toBe(date);
  });

  it('goes by the currency where day and month could change places', () => {
    expect(read('#Shop\n03/02/2026\nTotal $10.00').date).toMatchObject({ value: '2026-03-02', sure: 'likely' });
    expect(read('#Shop\n03/02/2026\nTotal EUR 10.00').date).toMatchObject({ value: '2026-02-03', sure: 'sure' });
  });

  it('is the day of the invoice, not the day it is due', () => {
    const text = '#Hotel\nDue date 2026-03-30\nInvoice date 2026-03-02\nTotal €10.00';
    expect(read(text).date?.value).toBe('2026-03-02');
  });

  it('is none that does not exist, and doubtful when it is to come', () => {
    expect(read('#Shop\n31.02.2026\nTotal €10.00').date).toBeNull();
    expect(read('#Shop\n05.08.2026\nTotal €10.00').date).toMatchObject({ value: '2026-08-05', sure: 'doubtful' });
  });
});

describe('taxes', () => {
  it('are read by rate from a table of net, tax and gross', () => {
    const text = '#Shop\nTotal 122.30 €\nRate Net Tax Gross\n23% 81.30 18.70 100.00\n13.5% 19.65 2.65 22.30';
    expect(read(text).taxes).toMatchObject([
      { rate: '23', base: '81.30', tax: '18.70', sure: 'sure' },
      { rate: '13.5', base: '19.65', tax: '2.65', sure: 'sure' },
    ]);
  });

  it('are not made of a discount or a service charge', () => {
    expect(read('#Bar\nService 10% 4.00\nTotal €44.00').taxes).toEqual([]);
  });
});

describe('kroner', () => {
  it('are told apart by the words around them', () => {
    expect(read('#Butikk AS\nOrg.nr 987654321 MVA\nTotalt kr 120,00').currency?.value).toBe('NOK');
    expect(read('#Butik\nKøbenhavn\nI alt kr 120,00').currency?.value).toBe('DKK');
    expect(read('#Somewhere\nTotal kr 120,00').currency).toBeNull();
  });
});

describe('zeros struck through, which are read as 8 or 6', () => {
  it('are put right in a total that the items prove, which is then not sure', () => {
    const text = (total: string) => `#Shop\n02.03.2026\nRope EUR 12.50\nGloves 7.60\nTotal EUR ${total}`;
    expect(read(text('28.18')).amount).toMatchObject({ value: '20.10', sure: 'likely' });
    expect(read(text('28.19')).amount?.value).toBe('28.19');
  });

  it('are put right in a total by its tax and rate, where only one reading fits', () => {
    const text = '#Shop\n02.03.2026\nTotal EUR 126.39\n20% VAT 20.07';
    expect(read(text).amount).toMatchObject({ value: '120.39', sure: 'likely' });
  });

  it('are left where nothing proves another figure', () => {
    expect(read('#Shop\n02.03.2026\nTotal EUR 126.39').amount?.value).toBe('126.39');
  });

  it('are put right in a date that cannot be, and the date is not sure', () => {
    expect(read('#Shop\n17 Mar 2826\nTotal EUR 1.00').date).toMatchObject({ value: '2026-03-17', sure: 'likely' });
    expect(read('#Shop\n2026/82/24\nTotal EUR 1.00').date).toMatchObject({ value: '2026-02-24', sure: 'likely' });
  });
});

describe('a total that is not legible', () => {
  it('is computed from net and tax, and says so', () => {
    expect(read('#Shop\nEUR\nNet 81.60\nVAT 23 % 18.77').amount).toMatchObject({
      value: '100.37',
      sure: 'likely',
      because: 'the total is not legible; net and tax come to this',
    });
    expect(read('#Shop\nEUR\n% Net VAT\n25,0 195,15 48,79').amount?.value).toBe('243.94');
  });

  it('is never computed over one that is: a tip makes it more than net and tax', () => {
    expect(read('#Shop\nEUR\nNet 81.60\nVAT 23 % 18.77\nTip 5.00\nTotal 105.37').amount?.value).toBe('105.37');
  });
});

describe('figures as they are set', () => {
  it('are read from the row below their labels', () => {
    expect(read('#Ferry\nVAT 23% Net\n4.86 21.14\nTotal due EUR 26.00').taxes).toMatchObject([
      { rate: '23', base: '21.14', tax: '4.86' },
    ]);
  });

  it('are read from a table with rates in a column of their own, not from quantities and prices', () => {
    expect(read('#Bar\nTotal EUR 26.00\n% Net VAT\n23.0 21.14 4.86').taxes).toMatchObject([
      { rate: '23', base: '21.14', tax: '4.86', sure: 'sure' },
    ]);
    expect(read('#Bar\n2 Soup 10.00 20.00\nTotal EUR 20.00').taxes).toEqual([]);
  });

  it('are read where the currency touches them', () => {
    expect(values('#Bar\nTotal EUR12.50')).toMatchObject({ amount: '12.50', currency: 'EUR' });
    expect(values('#Bar\nOslo Norge Org.nr 987654321 MVA\nTotalt kr243,94')).toMatchObject({ amount: '243.94' });
  });

  it('have the currency that stands in brackets, also where the amount is elsewhere', () => {
    expect(read('#Bar\nNet payable (BHD)\n24.810').currency?.value).toBe('BHD');
  });

  it('are not sure when only a smudge looks like a sign', () => {
    expect(read('#Bar\n£ 12', 30).currency?.sure).toBe('doubtful');
  });

  it('have a tax that its rate does not lead to as doubtful', () => {
    expect(read('#Bar\nVAT 9% 18.77\nTotal EUR 100.37').taxes).toMatchObject([{ tax: '18.77', sure: 'doubtful' }]);
  });

  it('belong to a name with a word in it, not to scattered letters', () => {
    expect(read('#rr a i Rt\nReedbed Cafe\nTotal EUR 4.00').merchant?.value).toBe('Reedbed Cafe');
  });
});

describe('what was bought', () => {
  const rows = (text: string) => read(text).bought!.map((item) => `${item.text}: ${item.amount}`);

  it('are the rows with words and an amount above the total, and nothing of taxes, sums and payment', () => {
    const text =
      '#Kiosk\nTel 2301.44\nBrus 34,60\nØl 25,00\nDelsum 59,60\nMva 25 % 11,92\nAvrunding 0,40\nÅ betale kr 60,00\nKontant 100,00\nTilbake 40,00';
    expect(rows(text)).toEqual(['Brus: 34.60', 'Øl: 25.00']);
  });
  it('has its words on the row above where quantity and price have their own', () => {
    expect(rows('#Till\nRope\n2 x 4.00   8.00 A\nTOTAL EUR 8.00')).toEqual(['Rope: 8.00']);
  });
  it('may have a word in its name that elsewhere means a sum or a payment', () => {
    const text = '#Depot\nTrays and shade net 8.00\nTicket with one change 20.00\nTotal EUR 28.00';
    expect(rows(text)).toEqual(['Trays and shade net: 8.00', 'Ticket with one change: 20.00']);
  });
  it('is nothing on the slip of a card terminal', () => {
    expect(rows('#Bar\nTOTAL EUR 26.00\nVISA ****4410\nAPPROVED')).toEqual([]);
    expect(rows('#Bar\nEUR 26.00\nTOTAL EUR 26.00')).toEqual([]);
  });
  it('is in the decimals of the currency', () => {
    expect(rows('#Souq\nKarak tea 1.250\nTotal BHD 1.250')).toEqual(['Karak tea: 1.250']);
    expect(rows('#Kombini\nOnigiri 320\nTotal JPY 320')).toEqual(['Onigiri: 320']);
  });
});

describe('that it was paid', () => {
  const cases: [string, string | undefined][] = [
    ['VISA ************4410', 'card ending 4410'],
    ['Cash 30.00\nChange 4.00', 'Cash 30.00'],
    ['Bar 26,00', 'Bar 26,00'],
    ['Betalt med kort', 'Betalt med kort'],
    ['Received with thanks', 'Received with thanks'],
    ['Kartenzahlung 26.00', 'Kartenzahlung 26.00'],
    // less than the total was handed over, or nothing is said of a payment
    ['Deposit by card 5.00', undefined],
    ['Received with thanks, balance 0.00', 'Received with thanks, balance 0.00'],
    ['Paid 20.00, balance 6.00', undefined],
    ['Deposit paid 5.00', undefined],
    ['Amount paid 0.00', undefined],
    ['Amount paid EUR 26.00', 'Amount paid EUR 26.00'],
    ['Payee: Quay Stores Ltd', undefined],
    ['Approved by the committee', undefined],
    ['Forma de pago', undefined],
    ['We take cards and cash', undefined],
    ['Not paid', undefined],
    ['Please pay within 30 days, unpaid accounts are charged', undefined],
    ['Zahlbar bis 30.06.2026', undefined],
    ['Thank you', undefined],
  ];
  it.each(cases)('of %s is %s', (line, paid) => {
    expect(read(`#Hotel\nRoom 26.00\nTotal EUR 26.00\n${line}`).paid?.value).toBe(paid);
  });
});
