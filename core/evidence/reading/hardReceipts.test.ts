import { describe, expect, it } from 'vitest';
import { wordsOf } from '../../../test/fixtures/wordsOf.ts';
import { readDocument } from './readDocument.ts';

const AS_OF = '2026-06-30';
const read = (text: string, confidence?: number) => readDocument(wordsOf(text, confidence), AS_OF);

describe('the last four digits of a card', () => {
  const cases: [string, string | null][] = [
    ['VISA ************4410', '4410'],
    ['XXXX XXXX XXXX 4410', '4410'],
    ['•••• 4410', '4410'],
    ['4539 12** **** 4410', '4410'],
    ['453912******4410', '4410'],
    ['Kartennr. ###############4410', '4410'],
    ['Mastercard ....4410', '4410'],
    ['Visa …4410', '4410'],
    ['Visa ending in 4410', '4410'],
    ['Carte bancaire se terminant par 4410', '4410'],
    ['Karte endet auf 4410', '4410'],
    ['VISA DEBIT 4410', '4410'],
    ['Bankkort 4410 26,00', '4410'],
    ['Mastercard *4410', '4410'],
    ['VISA (4410) 26.00', '4410'],
    ['Card: -4410', '4410'],
    ['**** **** **** 4410 26.00', '4410'],
    ['Betalt med kort 26.00', null],
    ['Paid by card 03.02.2026', null],
    ['Card receipt 2026', null],
    ['Credit note 4410', null],
    ['Order **4410**', null],
    ['Card terminal 44107788', null],
  ];
  it.each(cases)('of %s are %s', (line, digits) => {
    expect(read(`#Bar\nTotal EUR 26.00\n${line}`).cardDigits?.value ?? null).toBe(digits);
  });

  it('stand on the line below the word for the card, too', () => {
    expect(read('#Bar\nTotal EUR 26.00\nVISA CONTACTLESS\n**4410\n').cardDigits?.value).toBe('4410');
  });
});

describe('a total below which something was written by hand', () => {
  const slip = (below: string) => read(`#Harbour Grill\nSoup 20.00\nPie 18.60\nTotal EUR 38.60\n${below}`);
  const doubtful: [string, string, RegExp][] = [
    ['a tip that cannot be read', 'Gratuity', /“Gratuity” stands below it, without an amount/],
    ['a place for a tip that holds scribble', 'Tip ___ 8oo', /Tip/],
    ['a tip whose total cannot be read', 'Tip 8.00\nTotal', /“Tip 8.00” is added below it/],
    ['a tip that no total counts', 'Trinkgeld 8.00', /“Trinkgeld 8.00” is added below it/],
    ['a tip in another language', 'Pourboire', /Pourboire/],
  ];
  it.each(doubtful)('is doubtful and says why: %s', (_, below, because) => {
    const { amount } = slip(below);
    expect([amount?.value, amount?.sure]).toEqual(['38.60', 'doubtful']);
    expect(amount?.because).toMatch(because);
  });
  it('is doubtful where what stands below it can hardly be read', () => {
    const printed = wordsOf('#Harbour Grill\nSoup 20.00\nPie 18.60\nTotal EUR 38.60\nThank you');
    const below = (confidences: readonly number[]) =>
      wordsOf(`${'\n.'.repeat(5)}\nJervice 46.60`)
        .slice(-2)
        .map((word, i) => ({ ...word, confidence: confidences[i]!, box: { ...word.box, y: 1.1 } }));
    const hand = readDocument([...printed, ...below([52, 77])], '2026-06-30').amount;
    expect([hand?.value, hand?.sure]).toEqual(['38.60', 'doubtful']);
    expect(hand?.because).toBe('“Jervice 46.60” is written below it by hand, it seems');
    const figures = readDocument([...printed, ...below([68, 68])], '2026-06-30').amount;
    expect([figures?.value, figures?.sure]).toEqual(['38.60', 'doubtful']);
    const print = readDocument([...printed, ...below([93, 77])], '2026-06-30').amount;
    expect([print?.value, print?.sure === 'doubtful']).toEqual(['38.60', false]);
  });
  it.each([
    ['a tip that is counted', 'Gratuity 8.00\nTotal 46.60', '46.60'],
    ['no tip at all', 'Tip 0.00', '38.60'],
    ['a sentence about tips', 'Tips are welcome, thank you', '38.60'],
    ['what is in the price', 'Service and tip included', '38.60'],
    ['the heading of a table of taxes', 'VAT Net Total\n23% 31.38 7.22 38.60', '38.60'],
  ])('is as sure as it was: %s', (_, below, value) => {
    const { amount } = slip(below);
    expect([amount?.value, amount?.sure === 'doubtful']).toEqual([value, false]);
  });
});

describe('a total', () => {
  const cases: [string, string, string][] = [
    [
      'to pay, after its rounding, not the sum',
      '#Kiosk AS\nBrus 34,60\nIs 25,00\nSum kr 59,60\nAvrunding 0,40\nÅ betale kr 60,00',
      '60.00',
    ],
    ['to pay, of a rounding down', '#Kiosk\nA 10.00\nB 2.02\nSum EUR 12.02\nRounding -0.02\nTo pay EUR 12.00', '12.00'],
    ['with the tip', '#Bar\nSoup 20.00\nPie 18.00\nTotal EUR 38.00\nTip 4.00\nAmount charged EUR 42.00', '42.00'],
    ['with a minus before the sign', '#Shop\nRefund\nTotal -€12.50', '-12.50'],
    ['with a minus before the code', '#Shop\nCredit note\nTotal -EUR 12.50', '-12.50'],
    ['without the dash that stands between a name and its amount', '#Taxi\nTotal - EUR 12.50', '12.50'],
    ['with a minus behind it', '#Shop\nGutschrift\nGesamt EUR 12,50-', '-12.50'],
  ];
  it.each(cases)('is %s', (_, text, amount) => {
    expect(read(text).amount?.value).toBe(amount);
  });

  it('is not the tax below its label', () => {
    expect(read('#Shop\nA 3.000\nGrand Total\nA VAT 10 % 3.041\nBHD 33.455').amount?.value).not.toBe('3.041');
  });

  it('is not lowered by a minus that stands between two figures', () => {
    expect(read('#Shop\nOpen 8.00 - 20.00\nTotal EUR 12.50').amount?.value).toBe('12.50');
  });
});

describe('a currency', () => {
  it('heads the column of its amounts', () => {
    const text =
      '#Shop\nItem                     Amount EUR\nRope                          12.50\nBucket                         7.50\nTotal                         20.00';
    expect(read(text).currency?.value).toBe('EUR');
    expect(read(text.replace('Amount EUR', '      (NOK)')).currency?.value).toBe('NOK');
  });

  it('of a dollar sign is that of the country of its taxes', () => {
    const of = (tail: string) => read(`#Diner\nSoup $10.00\n${tail}\nTotal $11.30`).currency?.value;
    expect(of('HST 13% $1.30')).toBe('CAD');
    expect(of('TPS 5% $0.50\nTVQ 9.975% $1.00')).toBe('CAD');
    expect(of('ABN 51 824 753 556\nGST incl. $1.03')).toBe('AUD');
    expect(of('GST 15% $1.47')).toBe('NZD');
    expect(of('Sales tax $1.30')).toBe('USD');
    expect(of('IVA 16% $1.56\nRFC ABC010203AB9')).toBe('MXN');
  });
});

describe('a date', () => {
  const cases: [string, string, string][] = [
    ['of payment, not of the trip', 'Booked on 2026-02-01\nTravel date 2026-04-12\nPaid on 2026-02-03', '2026-02-03'],
    [
      'of the invoice, not of the flight',
      'Outbound flight 2026-04-12\nReturn flight 2026-04-19\nInvoice date 2026-02-03',
      '2026-02-03',
    ],
    [
      'of departure on the bill of a hotel',
      'Arrival 12.03.2026\nDeparture 15.03.2026\n12.03.2026 Room 90,00\n13.03.2026 Room 90,00\n14.03.2026 Room 90,00',
      '2026-03-15',
    ],
    [
      'of the invoice of a hotel',
      'Invoice date 15.03.2026\nArrival 12.03.2026\nDeparture 16.03.2026\n12.03.2026 Room 90,00',
      '2026-03-15',
    ],
    ['of booking where it is the only one that is past', 'Booking date 2026-02-01\nDeparts 2026-09-12', '2026-02-01'],
  ];
  it.each(cases)('is that %s', (_, text, date) => {
    expect(read(`#Hotel\n${text}\nTotal EUR 270.00`).date?.value).toBe(date);
  });

  it('has its zeros put right before day and month change places', () => {
    expect(read('#Shop\n05/18/2025\nTotal EUR 10.00', 80).date).toMatchObject({ value: '2025-10-05', sure: 'likely' });
    expect(read('#Shop\n05/18/2025\nTotal EUR 10.00', 100).date?.value).toBe('2025-05-18');
  });
});

describe('words of more languages', () => {
  it.each([
    ['Hungarian', '#Étterem Kft\nLeves 1 200,00\nPörkölt 2 400,00\nVégösszeg 3 600,00 Ft', '3600.00', 'HUF'],
    ['Swiss', '#Gasthaus\nKaffee 4.50\nGipfeli 4.50\nTotal Fr. 9.00', '9.00', 'CHF'],
    ['Czech', '#Hospoda\nPivo 59,00\nCelkem 59,00 Kč', '59.00', 'CZK'],
    ['Japanese', '#居酒屋\n小計 ¥4,910\n消費税 ¥490\n合計 ¥5,400\nお預り ¥6,000\nお釣り ¥600', '5400', 'JPY'],
  ])('tell the total: %s', (_, text, amount, currency) => {
    const { amount: read1, currency: read2 } = read(text);
    expect([read1?.value, read1?.sure === 'doubtful', read2?.value]).toEqual([amount, false, currency]);
  });
  it('tell a tax number that says itself what it is', () => {
    expect(read('#Gasthaus\nTotal CHF 9.00\nCHE-123.456.788 MWST').taxNumber?.value).toBe('CHE123456788MWST');
  });
  it.each([
    ['Gültigkeit 05.03.2026 - 06.03.2026\nGekauft am 02.03.2026', '2026-03-02'],
    ['Gyldig 05.03.2026\nKjøpsdato 02.03.2026', '2026-03-02'],
    ['Valid 05.03.2026\nPurchase date 02.03.2026', '2026-03-02'],
    ['Entry 01.03.2026 08:00\nExit 02.03.2026 09:00', '2026-03-02'],
  ])('tell the day of the purchase from others: %s', (days, date) => {
    expect(read(`#Verkehr\n${days}\nTotal EUR 19.00`).date?.value).toBe(date);
  });
});

describe('taxes', () => {
  it.each(['19,0 %', '19, 0 %', '19 ,0 %', '19 %'])('of a rate printed as "%s" are of 19 %', (rate) => {
    const { taxes } = read(`#Laden\nNetto 100,00\nMwSt ${rate} 19,00\nGesamt EUR 119,00`);
    expect(taxes.map((t) => [t.rate, t.tax])).toEqual([['19', '19.00']]);
  });
  it('are sure only when bases, taxes and rest come to the total', () => {
    const rows = '7% 100.00 7.00 107.00\n19% 100.00 19.00 119.00';
    expect(read(`#Shop\n${rows}\nTotal EUR 226.00`).taxes.map((t) => t.sure)).toEqual(['sure', 'sure']);
    expect(read(`#Shop\n${rows}\nTotal EUR 230.00`).taxes.map((t) => t.sure)).toEqual(['likely', 'likely']);
    expect(
      read(`#Shop\n${rows}\n0% 4.00 0.00 4.00\nTotal EUR 230.00`)
        .taxes.slice(0, 2)
        .map((t) => t.sure),
    ).toEqual(['sure', 'sure']);
    expect(read(`#Shop\n${rows}\nTip 4.00\nTotal EUR 230.00`).taxes.map((t) => t.sure)).toEqual(['sure', 'sure']);
  });

  it('are taken without a rate', () => {
    expect(read('#Diner\nSoup 10.00\nSales tax 0.89\nTotal $10.89').taxes).toMatchObject([{ rate: null, tax: '0.89' }]);
    expect(read('#Shop\nGoods 100.00\nincl. VAT 16.67\nTotal £100.00').taxes).toMatchObject([
      { rate: '20', tax: '16.67' },
    ]);
  });

  it('have rates with more decimals', () => {
    expect(read('#Diner\nSoup 200.00\nTax 8.875% 17.75\nTotal $217.75').taxes).toMatchObject([
      { rate: '8.875', tax: '17.75', sure: 'sure' },
    ]);
    expect(read('#Café\nSoupe 100.00\nTPS 5% 5.00\nTVQ 9.975% 9.98\nTotal $114.98').taxes).toMatchObject([
      { rate: '5', tax: '5.00' },
      { rate: '9.975', tax: '9.98' },
    ]);
  });

  it('are read from a row whose rate is not legible, where just one can be', () => {
    const row = '#Shop\n% Net VAT Gross\n| 87.13 | 16.56 | 103.69\nTotal EUR 103.69';
    expect(read(row).taxes).toMatchObject([{ rate: '19', base: '87.13', tax: '16.56' }]);
    expect(read('#Shop\nTotal EUR 240.95\nVAT 21 3% 41.82').taxes).toMatchObject([{ rate: '21', tax: '41.82' }]);
  });

  it('of the items are not counted beside those of the bill', () => {
    const text = '#Shop\nRope 20% VAT 2.00 12.00\nBucket 20% VAT 1.00 6.00\nVAT 20% 15.00 3.00\nTotal £18.00';
    expect(read(text).taxes).toMatchObject([{ rate: '20', base: '15.00', tax: '3.00', sure: 'sure' }]);
  });
});

describe('a merchant', () => {
  it('is not the worse for a word inside a word', () => {
    expect(read('#Hotel Faxholm\nStrandgate 4\nTotal EUR 10.00').merchant).toMatchObject({
      value: 'Hotel Faxholm',
      sure: 'sure',
    });
    expect(read('#Motel am See\nTel. 040 123\nTotal EUR 10.00').merchant?.value).toBe('Motel am See');
  });
});
