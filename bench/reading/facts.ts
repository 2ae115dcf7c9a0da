import { addDays } from '../../core/numbers/isoDate.ts';
import type { Random } from '../../demo/random.ts';

/** What a drawn receipt states; amounts in minor units. Everybody and everything is invented. */
export interface Facts {
  locale: Locale;
  merchant: string;
  street: string;
  date: string;
  time: string;
  items: { name: string; minor: number }[];
  total: number;
  tax: number;
  net: number;
  rate: number;
  taxNumber: string;
  card: string;
}
export interface Locale {
  currency: string;
  sign: string;
  decimals: number;
  number: (minor: number) => string;
  date: (iso: string) => string;
  words: {
    total: string;
    sub: string;
    tax: string;
    cash: string;
    change: string;
    card: string;
    receipt: string;
    date: string;
    taxNo: string;
    thanks: string;
  };
  rate: number;
  prefix: string;
  merchants: string[];
  streets: string[];
  items: string[];
}

const grouped = (minor: number, decimals: number, group: string, mark: string): string => {
  const digits = String(minor).padStart(decimals + 1, '0');
  const whole = decimals ? digits.slice(0, -decimals) : digits;
  const head = [...whole].map((d, i) => (i > 0 && (whole.length - i) % 3 === 0 ? group + d : d)).join('');
  return decimals ? `${head}${mark}${digits.slice(-decimals)}` : head;
};
const split = (iso: string) => iso.split('-') as [string, string, string];
const MONTHS_DE = 'Januar Februar März April Mai Juni Juli August September Oktober November Dezember'.split(' ');
const MONTHS_EN = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');

export const LOCALES: readonly Locale[] = [
  {
    currency: 'EUR',
    sign: '€',
    decimals: 2,
    rate: 23,
    prefix: 'IE',
    number: (m) => grouped(m, 2, ',', '.'),
    date: (d) => {
      const [y, m, day] = split(d);
      return `${day}/${m}/${y}`;
    },
    words: {
      total: 'TOTAL',
      sub: 'Subtotal',
      tax: 'VAT',
      cash: 'Cash',
      change: 'Change',
      card: 'Card',
      receipt: 'Receipt',
      date: 'Date',
      taxNo: 'VAT No',
      thanks: 'Thank you for your visit',
    },
    merchants: ['Slaney Quay Stores Ltd', 'Reedbed Café', 'Tidewater Outfitters', 'The Curlew Rooms'],
    streets: ['4 Quay Street, Wexford', 'Main Road, Rosslare'],
    items: ['Sandwich', 'Tea large', 'Waders hire', 'Rope 20 m', 'Soup of the day', 'Field notebook'],
  },
  {
    currency: 'EUR',
    sign: 'EUR',
    decimals: 2,
    rate: 19,
    prefix: 'DE',
    number: (m) => grouped(m, 2, '.', ','),
    date: (d) => {
      const [y, m, day] = split(d);
      return `${day}.${m}.${y}`;
    },
    words: {
      total: 'Summe',
      sub: 'Zwischensumme',
      tax: 'MwSt',
      cash: 'Bar',
      change: 'Rückgeld',
      card: 'Kartenzahlung',
      receipt: 'Kassenbon',
      date: 'Datum',
      taxNo: 'USt-IdNr',
      thanks: 'Vielen Dank für Ihren Einkauf',
    },
    merchants: ['Watt und Meer GmbH', 'Deichbäckerei Janssen', 'Halligkontor'],
    streets: ['Hafenstraße 12, 25813 Husum', 'Am Deich 3'],
    items: ['Fischbrötchen', 'Kaffee groß', 'Gummistiefel', 'Seil 10 m', 'Mineralwasser', 'Kuchen'],
  },
  {
    currency: 'EUR',
    sign: '€',
    decimals: 2,
    rate: 20,
    prefix: 'FR',
    number: (m) => grouped(m, 2, ' ', ','),
    date: (d) => {
      const [y, m, day] = split(d);
      return `${day}/${m}/${y.slice(2)}`;
    },
    words: {
      total: 'TOTAL TTC',
      sub: 'Total HT',
      tax: 'TVA',
      cash: 'Espèces',
      change: 'Rendu',
      card: 'Carte bancaire',
      receipt: 'Ticket',
      date: 'Date',
      taxNo: 'N° TVA',
      thanks: 'Merci de votre visite',
    },
    merchants: ['Le Comptoir des Vasières', 'Librairie du Marais', 'Hôtel des Estuaires SARL'],
    streets: ['8 rue du Port, 85230 Beauvoir', 'quai Nord'],
    items: ['Café', 'Menu du jour', 'Carnet', 'Bottes', 'Eau minérale', 'Galette'],
  },
  {
    currency: 'NOK',
    sign: 'kr',
    decimals: 2,
    rate: 25,
    prefix: 'NO',
    number: (m) => grouped(m, 2, ' ', ','),
    date: (d) => {
      const [y, m, day] = split(d);
      return `${day}.${m}.${y}`;
    },
    words: {
      total: 'Å betale',
      sub: 'Delsum',
      tax: 'MVA',
      cash: 'Kontant',
      change: 'Tilbake',
      card: 'Bankkort',
      receipt: 'Salgskvittering',
      date: 'Dato',
      taxNo: 'Org.nr',
      thanks: 'Takk for besøket',
    },
    merchants: ['Tarevik Utstyr AS', 'Fjæra Kro AS', 'Lofthavn Hotell'],
    streets: ['Strandgata 9, 7010 Trondheim', 'Brygga 2'],
    items: ['Fiskesuppe', 'Kaffe', 'Vadere leie', 'Tau 15 m', 'Vann', 'Rundstykke'],
  },
  {
    currency: 'GBP',
    sign: '£',
    decimals: 2,
    rate: 20,
    prefix: 'GB',
    number: (m) => grouped(m, 2, ',', '.'),
    date: (d) => {
      const [y, m, day] = split(d);
      return `${day} ${MONTHS_EN[Number(m) - 1]} ${y}`;
    },
    words: {
      total: 'Total to pay',
      sub: 'Sub-total',
      tax: 'VAT',
      cash: 'Cash',
      change: 'Change',
      card: 'Debit card',
      receipt: 'Receipt',
      date: 'Date',
      taxNo: 'VAT Reg No',
      thanks: 'Please come again',
    },
    merchants: ['Medway Field Supplies', 'Oyster Shed Kitchen', 'Thanet Rail Café'],
    streets: ['22 Harbour Parade, Kent', 'Station Approach'],
    items: ['Flat white', 'Crab roll', 'Gloves', 'Survey poles', 'Sparkling water', 'Pie and mash'],
  },
  {
    currency: 'USD',
    sign: '$',
    decimals: 2,
    rate: 6,
    prefix: 'US',
    number: (m) => grouped(m, 2, ',', '.'),
    date: (d) => {
      const [y, m, day] = split(d);
      return `${m}/${day}/${y}`;
    },
    words: {
      total: 'Amount Due',
      sub: 'Subtotal',
      tax: 'Sales Tax',
      cash: 'Cash',
      change: 'Change Due',
      card: 'Credit Card',
      receipt: 'Receipt',
      date: 'Date',
      taxNo: 'Tax ID',
      thanks: 'Have a great day',
    },
    merchants: ['Chesapeake Marsh Supply Inc', 'Heron Diner', 'Bayline Motor Lodge'],
    streets: ['501 Wharf Ave, Baltimore', 'Route 50'],
    items: ['Coffee', 'Crab cake', 'Kayak rental', 'Batteries', 'Iced tea', 'Notebook'],
  },
  {
    currency: 'JPY',
    sign: '¥',
    decimals: 0,
    rate: 10,
    prefix: 'T',
    number: (m) => grouped(m, 0, ',', ''),
    date: (d) => d.replaceAll('-', '/'),
    words: {
      total: 'TOTAL',
      sub: 'Subtotal',
      tax: 'Tax',
      cash: 'Cash',
      change: 'Change',
      card: 'Card',
      receipt: 'Receipt',
      date: 'Date',
      taxNo: 'Tax No',
      thanks: 'Thank you',
    },
    merchants: ['Higata Shokudo', 'Ariake Inn', 'Kaigan Mart'],
    streets: ['2-14 Minato, Saga', 'Kyushu Japan'],
    items: ['Ramen', 'Green tea', 'Onigiri', 'Rubber boots', 'Umbrella', 'Bento'],
  },
  {
    currency: 'BHD',
    sign: 'BHD',
    decimals: 3,
    rate: 10,
    prefix: 'BH',
    number: (m) => grouped(m, 3, ',', '.'),
    date: (d) => {
      const [y, m, day] = split(d);
      return `${day}-${m}-${y}`;
    },
    words: {
      total: 'Grand Total',
      sub: 'Subtotal',
      tax: 'VAT',
      cash: 'Cash',
      change: 'Change',
      card: 'Card',
      receipt: 'Tax Invoice',
      date: 'Date',
      taxNo: 'VAT No',
      thanks: 'Thank you',
    },
    merchants: ['Mangrove House Trading', 'Pearl Coast Café', 'Tubli Bay Rooms'],
    streets: ['Road 1912, Manama', 'Block 319'],
    items: ['Karak tea', 'Lunch plate', 'Boat hire', 'Water 6 pack', 'Sun hat', 'Dates box'],
  },
];

/** Longer dates for letters: "5. März 2026", "5 Mar 2026". */
export const longDate = (iso: string, locale: Locale): string => {
  const [y, m, d] = split(iso);
  if (locale.prefix === 'DE') return `${Number(d)}. ${MONTHS_DE[Number(m) - 1]} ${y}`;
  return locale.prefix === 'GB' || locale.prefix === 'IE'
    ? `${Number(d)} ${MONTHS_EN[Number(m) - 1]} ${y}`
    : locale.date(iso);
};

export function inventFacts(random: Random, locale: Locale, asOf: string): Facts {
  const items = Array.from({ length: random.whole(2, 5) }, () => ({
    name: random.pick(locale.items),
    minor:
      locale.decimals === 0
        ? random.whole(12, 480) * 10
        : locale.decimals === 3
          ? random.whole(80, 4000) * 5
          : random.whole(180, 9900),
  }));
  const total = items.reduce((a, i) => a + i.minor, 0);
  const tax = Math.round((total * locale.rate) / (100 + locale.rate));
  return {
    locale,
    merchant: random.pick(locale.merchants),
    street: random.pick(locale.streets),
    date: addDays(asOf, -random.whole(1, 200)),
    time: `${String(random.whole(8, 21)).padStart(2, '0')}:${String(random.whole(0, 59)).padStart(2, '0')}`,
    items,
    total,
    tax,
    net: total - tax,
    rate: locale.rate,
    taxNumber: `${locale.prefix}${random.whole(100_000_000, 999_999_999)}`,
    card: String(random.whole(1000, 9999)),
  };
}
