import { describe, expect, it } from 'vitest';
import { readTable } from '../csv.ts';
import { proposeMapping } from './proposeMapping.ts';

/** What is expected by the headings' own names; what is not said is null, what must be left open is undefined. */
interface Expected {
  date: string | undefined;
  amount: string | undefined;
  merchant: string | undefined;
  order: string | undefined;
  mark: string | undefined;
  spent: string | undefined;
  credit?: string;
  side?: string;
  currency?: string;
  purchased?: string;
  reference?: string;
  originalAmount?: string;
  originalCurrency?: string;
  categoryCode?: string;
}

/** Tables as banks of many countries lay them out; every name and figure is made up. */
const TABLES: [string, string, Expected][] = [
  [
    'Norwegian, with a day of interest and money out and in',
    'Bokføringsdato;Rentedato;Tekst;Ut av konto;Inn på konto;Saldo\n14.03.2026;13.03.2026;Tidewater Kafe;128,50;;4 871,50\n16.03.2026;16.03.2026;Kvist Bok;1 240,00;;3 631,50\n18.03.2026;18.03.2026;Kvist Bok retur;;40,00;3 671,50',
    {
      date: 'Bokføringsdato',
      merchant: 'Tekst',
      amount: 'Ut av konto',
      credit: 'Inn på konto',
      order: 'dmy',
      mark: ',',
      spent: 'positive',
    },
  ],
  [
    'Dutch, with a mark in a column',
    'Datum,Naam,Af Bij,Bedrag (EUR),Mededelingen\n20260314,Kade Koffie,Af,"12,50",tafel 4\n20260316,Reed Rail,Af,"48,00",rit\n20260319,Reed Rail,Bij,"8,00",terug',
    {
      date: 'Datum',
      merchant: 'Naam',
      amount: 'Bedrag (EUR)',
      side: 'Af Bij',
      order: 'ymd',
      mark: ',',
      spent: 'positive',
    },
  ],
  [
    'Portuguese, what was spent with a minus',
    'Data mov.;Data valor;Descrição;Valor;Saldo\n14/03/2026;14/03/2026;Padaria Duna;-4,20;995,80\n15/03/2026;15/03/2026;Papelaria Cana;-31,00;964,80\n20/03/2026;20/03/2026;Papelaria Cana;6,00;970,80',
    { date: 'Data mov.', merchant: 'Descrição', amount: 'Valor', order: 'dmy', mark: ',', spent: 'negative' },
  ],
  [
    'Spanish',
    'Fecha operación\tFecha valor\tConcepto\tImporte\tDivisa\n2026-03-14\t2026-03-15\tCafé Juncal\t-3,40\tEUR\n2026-03-15\t2026-03-15\tTaller Marea\t-128,00\tEUR',
    {
      date: 'Fecha operación',
      merchant: 'Concepto',
      amount: 'Importe',
      currency: 'Divisa',
      order: 'ymd',
      mark: ',',
      spent: 'negative',
    },
  ],
  [
    'Swedish',
    'Bokföringsdag;Valutadag;Text;Belopp;Valuta;Verifikationsnummer\n2026-03-14;2026-03-14;Vass Café;-84,00;SEK;5484471\n2026-03-16;2026-03-17;Kaj Papper;-1240,50;SEK;5484472',
    {
      date: 'Bokföringsdag',
      merchant: 'Text',
      amount: 'Belopp',
      currency: 'Valuta',
      reference: 'Verifikationsnummer',
      order: 'ymd',
      mark: ',',
      spent: 'negative',
    },
  ],
  [
    'English, with a type of sale and return',
    'Transaction Date,Post Date,Description,Category,Type,Amount,Memo\n03/14/2026,03/15/2026,REEDBED DINER,Food,Sale,24.10,\n03/16/2026,03/17/2026,QUAY BOOKS,Shopping,Sale,18.99,\n03/20/2026,03/21/2026,QUAY BOOKS,Shopping,Return,18.99,',
    {
      date: 'Post Date',
      purchased: 'Transaction Date',
      merchant: 'Description',
      amount: 'Amount',
      side: 'Type',
      order: 'mdy',
      mark: '.',
      spent: 'positive',
    },
  ],
  [
    'English, with a type and a sign',
    'Transaction Date,Post Date,Description,Category,Type,Amount,Memo\n03/14/2026,03/15/2026,REEDBED DINER,Food,Sale,-24.10,\n03/16/2026,03/17/2026,QUAY BOOKS,Shopping,Sale,-18.99,\n03/20/2026,03/21/2026,QUAY BOOKS,Shopping,Return,18.99,',
    {
      date: 'Post Date',
      purchased: 'Transaction Date',
      merchant: 'Description',
      amount: 'Amount',
      order: 'mdy',
      mark: '.',
      spent: 'negative',
    },
  ],
  [
    'Japanese',
    '利用日,利用店名,利用金額,支払区分\n2026/03/14,潮見珈琲店,"1,240",1回\n2026/03/15,葦原書店,980,1回\n2026/03/18,東浜電鉄,"12,300",1回',
    { date: '利用日', merchant: '利用店名', amount: '利用金額', order: 'ymd', mark: undefined, spent: 'positive' },
  ],
  [
    'German, what was charged abroad',
    'Belegdatum;Buchungstag;Händler;Betrag Fremdwährung;Fremdwährung;Kurs;Betrag in EUR\n13.03.2026;14.03.2026;Tideway Hotel;120,00;USD;1,0842;110,68\n15.03.2026;16.03.2026;Kiesel Druck;;;;45,00\n16.03.2026;18.03.2026;Reed Rail;32,40;GBP;0,8511;38,07',
    {
      date: 'Buchungstag',
      purchased: 'Belegdatum',
      merchant: 'Händler',
      amount: 'Betrag in EUR',
      originalAmount: 'Betrag Fremdwährung',
      originalCurrency: 'Fremdwährung',
      order: 'dmy',
      mark: ',',
      spent: 'positive',
    },
  ],
  [
    'French, one column of debits and none of credits yet',
    'Date;Date de valeur;Libellé;Débit;Crédit\n14/03/2026;14/03/2026;Café des Salines;4,20;\n16/03/2026;17/03/2026;Papeterie Jonc;31,90;',
    {
      date: 'Date',
      merchant: 'Libellé',
      amount: 'Débit',
      credit: 'Crédit',
      order: 'dmy',
      mark: ',',
      spent: 'positive',
    },
  ],
  [
    'without any headings',
    '14.03.2026;Reedbed Diner;-24,10;EUR;951,30\n16.03.2026;Quay Books;-18,90;EUR;932,40\n20.03.2026;Quay Books;18,90;EUR;951,30\n21.03.2026;Shingle Print Works;-101,30;EUR;850,00',
    {
      date: 'Column 1',
      merchant: 'Column 2',
      amount: 'Column 3',
      currency: 'Column 4',
      order: 'dmy',
      mark: ',',
      spent: 'negative',
    },
  ],
  [
    'headings of no known language',
    'Qyt,Zzem,Plof,Wend\n2026-03-14,Reedbed Diner,24.10,1000.00\n2026-03-16,Quay Books,18.90,981.10\n2026-03-21,Shingle Print Works,101.30,879.80',
    { date: 'Qyt', merchant: 'Zzem', amount: 'Plof', order: 'ymd', mark: '.', spent: 'positive' },
  ],
  [
    'Hungarian',
    'Tranzakció dátuma;Könyvelés dátuma;Kereskedő;Összeg;Deviza\n2026.03.14;2026.03.16;Nádas Kávézó;-1 890;HUF\n2026.03.15;2026.03.16;Rév Papír;-12 400;HUF',
    {
      date: 'Könyvelés dátuma',
      purchased: 'Tranzakció dátuma',
      merchant: 'Kereskedő',
      amount: 'Összeg',
      currency: 'Deviza',
      order: 'ymd',
      mark: '.',
      spent: 'negative',
    },
  ],
  [
    'Danish, currencies of both',
    'Dato;Tekst;Beløb;Valuta;Oprindeligt beløb;Oprindelig valuta\n14-03-2026;Rør Kaffe;-32,00;DKK;-32,00;DKK\n16-03-2026;Tideway Hotel;-820,15;DKK;-110,00;EUR',
    {
      date: 'Dato',
      merchant: 'Tekst',
      amount: 'Beløb',
      currency: 'Valuta',
      originalAmount: 'Oprindeligt beløb',
      originalCurrency: 'Oprindelig valuta',
      order: 'dmy',
      mark: ',',
      spent: 'negative',
    },
  ],
  [
    'a card and a holder that never change, a code of the branch',
    'Card number,Cardholder name,Posting date,Merchant name,MCC,Billing amount,Status\n**** 4410,Ida Quill,2026-03-14,Reedbed Diner,5812,24.10,Posted\n**** 4410,Ida Quill,2026-03-16,Quay Books,5942,18.90,Posted\n**** 4410,Ida Quill,2026-03-17,Reed Rail,4112,9.00,Pending',
    {
      date: 'Posting date',
      merchant: 'Merchant name',
      amount: 'Billing amount',
      categoryCode: 'MCC',
      order: 'ymd',
      mark: '.',
      spent: 'positive',
    },
  ],
  [
    'Italian, both days told by values alone',
    'Data 1;Data 2;Descrizione;Importo;Commissione\n16/03/2026;14/03/2026;Bar Canneto;4,20;0,00\n19/03/2026;18/03/2026;Cartoleria Molo;31,00;0,50\n20/03/2026;20/03/2026;Treno Laguna;12,00;0,00',
    {
      date: 'Data 1',
      purchased: 'Data 2',
      merchant: 'Descrizione',
      amount: 'Importo',
      order: 'dmy',
      mark: ',',
      spent: 'positive',
    },
  ],
  [
    'Finnish, months by numbers that may be either',
    'Kirjauspäivä;Saaja;Määrä\n03.04.2026;Kaisla Kahvila;-4,20\n05.04.2026;Ranta Paperi;-31,00',
    { date: 'Kirjauspäivä', merchant: 'Saaja', amount: 'Määrä', order: undefined, mark: ',', spent: 'negative' },
  ],
  [
    'Polish, the sum of what moved beside what is left',
    'Data transakcji;Data księgowania;Opis;Kwota;Waluta;Saldo po operacji\n2026-03-14;2026-03-15;Trzcina Kawa;-18,50;PLN;981,50\n2026-03-15;2026-03-16;Molo Papier;-81,50;PLN;900,00',
    {
      date: 'Data księgowania',
      purchased: 'Data transakcji',
      merchant: 'Opis',
      amount: 'Kwota',
      currency: 'Waluta',
      order: 'ymd',
      mark: ',',
      spent: 'negative',
    },
  ],
];

describe('what a table that nobody described holds', () => {
  it.each(TABLES)('%s', (_, text, expected) => {
    const read = readTable(text);
    if (!read.ok) throw new Error(read.says);
    const { delimiter: _delimiter, ...proposed } = proposeMapping(read.table);
    const named = Object.fromEntries(
      Object.entries(proposed).map(([field, at]) => [field, typeof at === 'number' ? read.table.columns[at] : at]),
    );
    const none = [
      'credit',
      'side',
      'currency',
      'purchased',
      'reference',
      'originalAmount',
      'originalCurrency',
      'categoryCode',
    ];
    expect(named).toEqual({ ...Object.fromEntries(none.map((field) => [field, null])), ...expected });
  });
});
