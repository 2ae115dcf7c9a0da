import { randomFrom, type Random } from '../../demo/random.ts';
import { write } from './randomCase.ts';
import { PLACES } from './tablePlaces.ts';
import { day, figure, turned, type Ways, type WaysTold } from './tableCells.ts';
import type { Place } from './tableWords.ts';

/** A charge as it truly is: positive is spent, negative came back. */
export interface TrueRow {
  booked: string;
  bought: string;
  settled: string;
  merchant: string;
  original: { amount: string; currency: string } | null;
  pending: boolean;
  number: string;
  balance: string;
}
export interface RandomTable {
  text: string;
  currency: string;
  digits: string;
  rows: TrueRow[];
  /** The column that truly holds each field; null where the table has none. */
  truth: Record<string, number | null>;
  ways: WaysTold;
  delimiter: string;
}
interface Drawn {
  field: string | null;
  heading: string;
  cell: (row: TrueRow) => string;
}
interface Around {
  r: Random;
  place: Place;
  ways: Ways;
  currency: string;
  /** How the table tells what was spent from what came back. */
  sides: 'sign' | 'columns' | 'mark';
  foreign: boolean;
}

const SHOPS = [
  'Reedbed Diner',
  'Quay Books',
  'Shingle Print Works',
  'Tideway Hotel',
  'Kiesel & Söhne',
  'Café Juncal',
  'Rév Papír',
  'Molo Trains',
  'Plover Taxi 12',
  'Sandpiper Foods',
  'Estuary Power',
  'Lagoon Ferries',
];
const CURRENCIES: Record<string, string> = {
  en: 'GBP',
  us: 'USD',
  de: 'EUR',
  fr: 'EUR',
  es: 'EUR',
  it: 'EUR',
  nl: 'EUR',
  pt: 'EUR',
  no: 'NOK',
  sv: 'SEK',
  da: 'DKK',
  fi: 'EUR',
  pl: 'PLN',
  hu: 'HUF',
  ja: 'JPY',
};

/** A table of charges from a seed, laid out as some bank might, with what it truly holds. */
export function randomTable(seed: number): RandomTable {
  const r = randomFrom(seed * 7919 + 13);
  const place = r.pick(PLACES);
  const currency = CURRENCIES[place.id]!;
  const ways = randomWays(r, place);
  const around: Around = {
    r,
    place,
    ways,
    currency,
    sides: r.pick(['sign', 'sign', 'columns', 'mark']),
    foreign: r.next() < 0.3,
  };
  const rows = randomRows(around);
  const columns = randomColumns(around);
  const isFilled = (c: Drawn) => rows.some((row) => c.cell(row) !== '');
  const delimiter = ways.mark === ',' || place.delimiter !== ',' ? r.pick([';', '\t', '|']) : r.pick([',', ';', '\t']);
  const cells = (values: string[]) =>
    values.map((v) => (v.includes(delimiter) || v.includes('"') ? `"${v.replace(/"/g, '""')}"` : v)).join(delimiter);
  const lines = [
    ...preamble(around),
    cells(columns.map((c) => c.heading)),
    ...rows.map((row) => cells(columns.map((c) => c.cell(row)))),
  ];
  const truth = Object.fromEntries(FIELDS.map((field) => [field, indexOrNull(columns, field, isFilled)]));
  return {
    text: lines.join(r.pick(['\n', '\r\n'])),
    currency,
    digits: '4410',
    rows,
    truth,
    ways: { order: ways.order, mark: ways.mark, spent: ways.spent },
    delimiter,
  };
}
const FIELDS = [
  'date',
  'purchased',
  'amount',
  'credit',
  'side',
  'currency',
  'merchant',
  'reference',
  'originalAmount',
  'originalCurrency',
];
function indexOrNull(columns: readonly Drawn[], field: string, isFilled: (c: Drawn) => boolean): number | null {
  const at = columns.findIndex((c) => c.field === field && (field === 'credit' || isFilled(c)));
  return at < 0 ? null : at;
}

function randomWays(r: Random, place: Place): Ways {
  const order = r.next() < 0.25 ? 'ymd' : place.order;
  return {
    order,
    mark: place.mark,
    spent: r.next() < 0.5 ? 'negative' : 'positive',
    named: order !== 'ymd' && place.months.length > 0 && r.next() < 0.1,
    group: r.pick(['', place.mark === ',' ? '.' : ',', ' ']),
    signAfter: r.next() < 0.05,
  };
}

function randomRows({ r, currency, foreign }: Around): TrueRow[] {
  const start = r.whole(0, 300);
  let balance = BigInt(r.whole(2_000_00, 9_000_00));
  let day = start;
  return Array.from({ length: r.whole(4, 40) }, (_, i) => {
    day += r.whole(0, 3);
    const back = r.next() < 0.12;
    const spent = BigInt(r.whole(100, r.next() < 0.1 ? 250_000 : 12_000));
    const minor = back ? -spent : spent;
    balance -= minor;
    const abroad = foreign && r.next() < 0.4;
    const other = currency === 'USD' ? 'CHF' : r.pick(['USD', 'CAD', 'CHF']);
    return {
      booked: dayAt(day),
      bought: dayAt(day - r.whole(0, 3)),
      settled: write(minor, currency),
      merchant: r.pick(SHOPS),
      original: abroad ? { amount: write((minor * 11n) / 10n, other), currency: other } : null,
      pending: r.next() < 0.08,
      number: String(48_000_000 + i * 37 + r.whole(0, 30)),
      balance: write(balance, currency),
    };
  });
}
const dayAt = (n: number): string => new Date(Date.UTC(2025, 0, 5 + n)).toISOString().slice(0, 10);

function preamble({ r }: Around): string[] {
  return r.next() < 0.2 ? ['Saltmarsh Commons', '', 'made up for nobody'] : [];
}

function randomColumns(around: Around): Drawn[] {
  const { r } = around;
  const columns = [...days(around), ...words(around), ...amounts(around), ...beside(around)];
  // banks have habits, and some have none
  return r.next() < 0.35 ? shuffled(r, columns) : columns;
}

const shuffled = (r: Random, columns: readonly Drawn[]): Drawn[] =>
  columns
    .map((column) => ({ column, at: r.next() }))
    .sort((a, b) => a.at - b.at)
    .map(({ column }) => column);

function heading({ r, place }: Around, key: keyof Place['words']): string {
  return r.pick(place.words[key]);
}

function days(around: Around): Drawn[] {
  const { r, ways, place } = around;
  const booked: Drawn = {
    field: 'date',
    heading: heading(around, 'booked'),
    cell: (row) => day(row.booked, ways, place),
  };
  const kind = r.next();
  if (kind < 0.35) return [{ ...booked, heading: heading(around, 'day') }];
  if (kind < 0.6)
    return [booked, { field: null, heading: heading(around, 'value'), cell: (row) => day(row.bought, ways, place) }];
  const bought = {
    field: 'purchased',
    heading: heading(around, 'bought'),
    cell: (row: TrueRow) => day(row.bought, ways, place),
  };
  return r.next() < 0.5 ? [bought, booked] : [booked, bought];
}

function words(around: Around): Drawn[] {
  const { r } = around;
  const merchant: Drawn = { field: 'merchant', heading: heading(around, 'merchant'), cell: (row) => row.merchant };
  const category: Drawn = {
    field: null,
    heading: heading(around, 'category'),
    cell: (row) => `Group ${row.merchant.length % 3 === 0 ? 'A' : 'B'}`,
  };
  const number: Drawn = { field: 'reference', heading: heading(around, 'reference'), cell: (row) => row.number };
  return [merchant, ...(r.next() < 0.3 ? [category] : []), ...(r.next() < 0.4 ? [number] : [])];
}

function amounts(around: Around): Drawn[] {
  const { r, ways, sides, currency, foreign } = around;
  const own: Drawn[] =
    r.next() < 0.5 ? [{ field: 'currency', heading: heading(around, 'currency'), cell: () => currency }] : [];
  const settled: Drawn = {
    field: 'amount',
    heading: heading(around, 'amount'),
    cell: ({ settled: s }) =>
      figure(sides === 'mark' ? s.replace('-', '') : ways.spent === 'negative' ? turned(s) : s, ways),
  };
  const foreigners: Drawn[] = foreign
    ? [
        {
          field: 'originalAmount',
          heading: heading(around, 'originalAmount'),
          cell: ({ original: o }) =>
            o
              ? figure(
                  sides === 'sign' && ways.spent === 'negative'
                    ? turned(o.amount)
                    : sides === 'sign'
                      ? o.amount
                      : o.amount.replace('-', ''),
                  ways,
                )
              : '',
        },
        {
          field: 'originalCurrency',
          heading: heading(around, 'originalCurrency'),
          cell: ({ original: o }) => o?.currency ?? '',
        },
      ]
    : [];
  if (sides === 'sign') return [settled, ...own, ...foreigners];
  if (sides === 'mark') {
    const [spent, back] = r.pick(around.place.marks);
    const side: Drawn = {
      field: 'side',
      heading: heading(around, 'side'),
      cell: ({ settled: s }) => (s.startsWith('-') ? back! : spent!),
    };
    return [settled, side, ...own, ...foreigners];
  }
  const debit: Drawn = {
    field: 'amount',
    heading: heading(around, 'debit'),
    cell: ({ settled: s }) => (s.startsWith('-') ? '' : figure(s, ways)),
  };
  const credit: Drawn = {
    field: 'credit',
    heading: heading(around, 'credit'),
    cell: ({ settled: s }) => (s.startsWith('-') ? figure(turned(s), ways) : ''),
  };
  return [debit, credit, ...own, ...foreigners];
}

function beside(around: Around): Drawn[] {
  const { r, ways } = around;
  const may: [number, Drawn][] = [
    [0.35, { field: null, heading: heading(around, 'balance'), cell: (row) => figure(row.balance, ways) }],
    [
      0.15,
      { field: null, heading: heading(around, 'fee'), cell: (row) => figure(row.original ? '0.75' : '0.00', ways) },
    ],
    [0.25, { field: null, heading: heading(around, 'card'), cell: () => '**** 4410' }],
    [0.2, { field: null, heading: heading(around, 'holder'), cell: () => 'Ida Quill' }],
    [0.2, { field: null, heading: heading(around, 'status'), cell: (row) => (row.pending ? 'Pending' : 'Booked') }],
  ];
  return may.flatMap(([share, column]) => (r.next() < share ? [column] : []));
}
