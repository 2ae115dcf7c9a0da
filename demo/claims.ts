import type { CorrectionSet } from '../contract/claims.ts';
import { randomFrom } from './random.ts';

/** A claim of the demo. Days count back from the day the demo is loaded; line days count from the trip's first day. */
export interface ClaimSeed {
  number: string;
  claimant: string;
  entity: string;
  currency: string;
  purpose: string;
  daysAgo: number;
  days: number;
  state: string;
  /** Within how many days it came to its state; without it the time until today is used. */
  took?: number;
  coding: Record<string, string>;
  advances?: { advance: string; upTo?: string }[];
  lines: LineSeed[];
  /** What finance has begun to change in review. */
  correction?: { line: string; set: CorrectionSet };
}
export interface LineSeed {
  day: number;
  category?: string;
  by?: 'own' | 'card' | 'central';
  card?: string;
  amount: string;
  currency?: string;
  country: string;
  merchant: string;
  text: string;
  tax?: { code: string; gross?: string; tax?: string }[];
  own?: string;
  settled?: [string, string];
  personal?: boolean;
  nights?: number;
  attendees?: { count: number; names?: string[] };
  coding?: Record<string, string>;
  /** The estimate of the claim's plan it is the cost of. */
  estimate?: string;
  split?: {
    by: 'percent' | 'amount' | 'weight' | 'equal';
    shares: { coding: Record<string, string>; value?: string }[];
  };
  items?: {
    id: string;
    category?: string;
    amount: string;
    text: string;
    personal?: boolean;
    tax?: { code: string; tax?: string }[];
  }[];
  /** What the receipt shows where it differs from the line; null is no receipt at all. */
  receipt?: {
    amount?: string;
    currency?: string;
    day?: number;
    merchant?: string;
    taxNumber?: string | null;
    same?: number;
  } | null;
}

const field = { costCentre: '410', fund: '10', project: 'REED-11' };
const science = { costCentre: '420', fund: '20', project: 'TIDE-04' };
const flats = { costCentre: '420', fund: '10', project: 'FLAT-07' };

/** Claims written by hand, each with something for the reviewer to find (or, twice, nothing at all). */
const written: ClaimSeed[] = [
  {
    number: 'C-1001',
    claimant: 'P05',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Reed-bed survey, Ria de Aveiro',
    daysAgo: 24,
    days: 4,
    state: 'in review',
    coding: field,
    lines: [
      {
        day: 0,
        category: 'lodging',
        amount: '202.00',
        country: 'PT',
        merchant: 'Casa das Salinas',
        text: 'Two nights',
        nights: 2,
        tax: [{ code: 'PT-6', tax: '11.43' }],
      },
      {
        day: 1,
        category: 'meal',
        amount: '45.60',
        country: 'PT',
        merchant: 'Taberna do Canal',
        text: 'Supper, survey team of three',
        attendees: { count: 3, names: ['Tomás Brandão', 'Ines Valadares', 'Duarte Reis'] },
        tax: [{ code: 'PT-23' }],
        receipt: { amount: '54.60' },
      },
      {
        day: 1,
        category: 'taxi',
        amount: '14.20',
        country: 'PT',
        merchant: 'Táxis Moliceiro',
        text: 'Station to field hut',
      },
      {
        day: 2,
        category: 'hire',
        amount: '360.00',
        country: 'PT',
        merchant: 'Barcos da Torreira Lda',
        text: 'Flat-bottomed boat, two days',
        tax: [{ code: 'PT-23', tax: '67.32' }],
      },
      {
        day: 3,
        category: 'supplies',
        amount: '100.01',
        country: 'IE',
        merchant: 'Wexford Chandlery',
        text: 'Sample jars and waders',
        tax: [{ code: 'IE-23' }],
      },
      {
        day: 3,
        category: 'taxi',
        amount: '8.50',
        country: 'PT',
        merchant: 'Parque da Estação',
        text: 'Parking',
        receipt: null,
      },
    ],
  },
  {
    number: 'C-1002',
    claimant: 'P06',
    entity: 'JP',
    currency: 'JPY',
    purpose: 'Tidal flat count, Ariake Sea',
    daysAgo: 20,
    days: 3,
    state: 'in review',
    coding: flats,
    lines: [
      {
        day: 0,
        category: 'rail',
        amount: '15600',
        country: 'JP',
        merchant: 'Kyushu Rail Counter',
        text: 'Return, Hakata to Isahaya',
        tax: [{ code: 'JP-10', tax: '1418' }],
      },
      {
        day: 0,
        category: 'lodging',
        amount: '23100',
        country: 'JP',
        merchant: 'Minshuku Higata',
        text: 'Two nights',
        nights: 2,
        tax: [{ code: 'JP-10' }],
      },
      {
        day: 1,
        category: 'meal',
        amount: '3278',
        country: 'JP',
        merchant: 'Shokudo Ushio',
        text: 'Lunch on the flats',
        attendees: { count: 2, names: ['Aoi Kuramochi', 'Sora Minagawa'] },
        tax: [
          { code: 'JP-8', gross: '2160' },
          { code: 'JP-10', gross: '1118' },
        ],
        receipt: { amount: '3728' },
      },
      {
        day: 1,
        category: 'hire',
        amount: '48000',
        country: 'JP',
        merchant: 'Isahaya Gyokyo',
        text: 'Boat and skipper, one day',
        tax: [{ code: 'JP-10' }],
      },
      {
        day: 2,
        category: 'fee',
        by: 'card',
        card: '8803',
        amount: '120.00',
        currency: 'USD',
        country: 'US',
        merchant: 'Wader Study Forum',
        text: 'Registration, count methods course',
        settled: ['18022', 'JPY'],
      },
    ],
  },
  {
    number: 'C-1003',
    claimant: 'P08',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Mangrove nursery visit, Gazi Bay',
    daysAgo: 30,
    days: 6,
    state: 'in review',
    coding: { costCentre: '410', fund: '20', project: 'MANG-02', grant: 'G-204' },
    advances: [{ advance: 'A-031' }],
    lines: [
      {
        day: 0,
        category: 'lodging',
        amount: '28500.00',
        currency: 'KES',
        country: 'KE',
        merchant: 'Gazi Bay Guesthouse',
        text: 'Five nights',
        nights: 5,
      },
      {
        day: 1,
        category: 'hire',
        amount: '19600.00',
        currency: 'KES',
        country: 'KE',
        merchant: 'Mikoko Boat Group',
        text: 'Canoe and two guides',
      },
      {
        day: 2,
        category: 'supplies',
        amount: '14250.00',
        currency: 'KES',
        country: 'KE',
        merchant: 'Ukunda Hardware',
        text: 'Seedling trays and shade net',
        receipt: { day: 3 },
      },
      {
        day: 5,
        category: 'taxi',
        amount: '6400.00',
        currency: 'KES',
        country: 'KE',
        merchant: 'Diani Cabs',
        text: 'To the airstrip',
      },
      {
        day: 5,
        category: 'air',
        by: 'central',
        amount: '412.70',
        country: 'KE',
        merchant: 'Safina Travel Desk',
        text: 'Nairobi to Ukunda, booked by the office',
      },
    ],
  },
  {
    number: 'C-1004',
    claimant: 'P10',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Sluice inspection with the Medway yard',
    daysAgo: 18,
    days: 2,
    state: 'in review',
    coding: science,
    lines: [
      {
        day: 0,
        category: 'rail',
        amount: '86.40',
        currency: 'GBP',
        country: 'GB',
        merchant: 'Medway Lines',
        text: 'London to Rochester, two returns',
        own: '1.24',
      },
      {
        day: 0,
        category: 'lodging',
        amount: '118.00',
        currency: 'GBP',
        country: 'GB',
        merchant: 'The Lightship Inn',
        text: 'One night',
        nights: 1,
        tax: [{ code: 'GB-20' }],
        own: '1.191',
      },
      {
        day: 1,
        category: 'meal',
        amount: '27.35',
        currency: 'GBP',
        country: 'GB',
        merchant: 'Chequers Quay Kitchen',
        text: 'Working lunch',
        tax: [{ code: 'GB-20', tax: '4.56' }],
      },
    ],
  },
  {
    number: 'C-1005',
    claimant: 'P05',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Spring-tide sampling, Wexford Slobs',
    daysAgo: 15,
    days: 2,
    state: 'in review',
    coding: science,
    lines: [
      {
        day: 0,
        category: 'rail',
        amount: '38.20',
        country: 'IE',
        merchant: 'Rosslare Coach',
        text: 'Dublin to Wexford, return',
      },
      {
        day: 0,
        category: 'lodging',
        amount: '129.00',
        country: 'IE',
        merchant: 'Harbour Rooms Wexford',
        text: 'One night',
        nights: 1,
        tax: [{ code: 'IE-13.5' }],
      },
      {
        day: 1,
        category: 'supplies',
        amount: '61.50',
        country: 'IE',
        merchant: 'Wexford Chandlery',
        text: 'Core tubes',
        tax: [{ code: 'IE-23', tax: '11.50' }],
      },
      {
        day: 1,
        category: 'meal',
        amount: '22.80',
        country: 'IE',
        merchant: 'Slaney Pantry',
        text: 'Supper',
        tax: [{ code: 'IE-13.5' }],
      },
    ],
  },
  {
    number: 'C-1006',
    claimant: 'P09',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Blue-carbon accounting conference, Baltimore',
    daysAgo: 27,
    days: 5,
    state: 'in review',
    coding: { costCentre: '430', fund: '10' },
    lines: [
      {
        day: 0,
        category: 'fee',
        amount: '480.00',
        country: 'IE',
        merchant: 'Estuary Accounts Guild',
        text: 'Online preparatory course from abroad',
        tax: [{ code: 'IE-SA23' }],
        split: {
          by: 'percent',
          shares: [
            { coding: { grant: 'G-118', fund: '20' }, value: '60' },
            { coding: { grant: 'G-204', fund: '20' }, value: '25' },
            { coding: {}, value: 'rest' },
          ],
        },
      },
      {
        day: 1,
        by: 'card',
        card: '4410',
        amount: '742.18',
        currency: 'USD',
        country: 'US',
        merchant: 'Fells Wharf Hotel',
        text: 'Four nights with extras',
        settled: ['686.91', 'EUR'],
        items: [
          { id: '2a', category: 'lodging', amount: '668.00', text: 'Room' },
          { id: '2b', category: 'meal', amount: '52.18', text: 'Breakfasts' },
          { id: '2c', amount: '22.00', text: 'Film rental', personal: true },
        ],
      },
      {
        day: 2,
        category: 'meal',
        by: 'card',
        card: '4410',
        amount: '64.50',
        currency: 'USD',
        country: 'US',
        merchant: 'Chesapeake Table',
        text: 'Dinner with two partners',
        settled: ['63.90', 'EUR'],
      },
      {
        day: 3,
        by: 'card',
        card: '4410',
        amount: '31.00',
        currency: 'USD',
        country: 'US',
        merchant: 'Harbor Gifts',
        text: 'Private, charged by mistake',
        settled: ['28.66', 'EUR'],
        personal: true,
        receipt: null,
      },
    ],
  },
  {
    number: 'C-1007',
    claimant: 'P01',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Audit preparation in Galway',
    daysAgo: 12,
    days: 2,
    state: 'in review',
    coding: { costCentre: '440', fund: '10' },
    lines: [
      {
        day: 0,
        category: 'rail',
        amount: '44.90',
        country: 'IE',
        merchant: 'Shannon Rail',
        text: 'Dublin to Galway, return',
      },
      {
        day: 0,
        category: 'lodging',
        amount: '141.00',
        country: 'IE',
        merchant: 'Corrib House',
        text: 'One night',
        nights: 1,
        tax: [{ code: 'IE-13.5' }],
      },
    ],
  },
  {
    number: 'C-1008',
    claimant: 'P08',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Nursery tools and a night in Cork',
    daysAgo: 22,
    days: 2,
    state: 'in review',
    coding: { costCentre: '410', fund: '10', project: 'MANG-02' },
    lines: [
      {
        day: 0,
        amount: '183.40',
        country: 'IE',
        merchant: 'Leeside Stores',
        text: 'Tools and food on one receipt',
        items: [
          { id: '1a', category: 'supplies', amount: '141.00', text: 'Spades and gloves', tax: [{ code: 'IE-23' }] },
          { id: '1b', category: 'meal', amount: '42.40', text: 'Food for the work party', tax: [{ code: 'IE-13.5' }] },
        ],
      },
      {
        day: 1,
        category: 'lodging',
        amount: '96.00',
        country: 'IE',
        merchant: 'Marina Lodge Cork',
        text: 'One night',
        nights: 1,
        tax: [{ code: 'IE-13.5' }],
        split: {
          by: 'amount',
          shares: [
            { coding: { costCentre: '410' }, value: '60.00' },
            { coding: { costCentre: '420' }, value: '36.00' },
          ],
        },
      },
    ],
    correction: {
      line: '2',
      set: {
        split: {
          by: 'amount',
          shares: [
            { coding: { costCentre: '410' }, value: '60.00' },
            { coding: { costCentre: '430' }, value: '32.00' },
          ],
        },
      },
    },
  },
  {
    number: 'C-1009',
    claimant: 'P02',
    entity: 'IE',
    currency: 'EUR',
    purpose: 'Gear collection across the border',
    daysAgo: 17,
    days: 1,
    state: 'in review',
    coding: field,
    lines: [
      {
        day: 0,
        category: 'supplies',
        amount: '246.00',
        country: 'GB',
        merchant: 'Carlingford Nets',
        text: 'Fyke nets',
        tax: [{ code: 'IE-23' }],
      },
      {
        day: 0,
        category: 'supplies',
        amount: '73.80',
        country: 'IE',
        merchant: 'Dundalk Marine',
        text: 'Rope and floats',
        tax: [{ code: 'IE-23', tax: '13.08' }],
        receipt: { taxNumber: null },
      },
      {
        day: 0,
        category: 'taxi',
        amount: '31.00',
        country: 'IE',
        merchant: 'Cooley Cabs',
        text: 'Depot to harbour',
        receipt: { merchant: 'Mourne Flowers' },
      },
    ],
  },
  {
    number: 'C-1010',
    claimant: 'P12',
    entity: 'IE',
    currency: 'EUR',
    purpose:
      'Meeting of the joint committee for the long-term monitoring of estuarine sediment transport and restored salt-marsh carbon stocks',
    daysAgo: 26,
    days: 3,
    state: 'in review',
    coding: { costCentre: '440', fund: '30' },
    lines: [
      {
        day: 0,
        category: 'air',
        by: 'central',
        amount: '1184.36',
        country: 'NO',
        merchant: 'Safina Travel Desk',
        text: 'Dublin to Trondheim and back with one change in either direction',
      },
      {
        day: 0,
        category: 'lodging',
        amount: '11480.00',
        currency: 'NOK',
        country: 'NO',
        merchant: 'Fjordgløtt Gjestehus og Konferansesenter ved Trondheimsfjorden',
        text: 'Room and hall for nine people, three days',
      },
      {
        day: 1,
        category: 'meal',
        amount: '2875.50',
        currency: 'NOK',
        country: 'NO',
        merchant: 'Brygga Spiseri',
        text: 'Committee supper',
        receipt: { merchant: 'Brygga Spiseri AS', amount: '2875.50' },
      },
      {
        day: 2,
        category: 'taxi',
        amount: '-120.00',
        currency: 'NOK',
        country: 'NO',
        merchant: 'Nidelv Taxi',
        text: 'Refund of a ride that never came',
      },
      {
        day: 2,
        category: 'phone',
        amount: '18.750',
        currency: 'BHD',
        country: 'BH',
        merchant: 'Gulf Roaming',
        text: 'Data for the video link to Bahrain',
      },
    ],
  },
  {
    number: 'C-1011',
    claimant: 'P07',
    entity: 'JP',
    currency: 'JPY',
    purpose: 'Oyster reef workshop, Hinase',
    daysAgo: 14,
    days: 2,
    state: 'in review',
    coding: flats,
    lines: [
      {
        day: 0,
        category: 'rail',
        amount: '8340',
        country: 'JP',
        merchant: 'Seto Rail Counter',
        text: 'Okayama to Hinase and back',
        estimate: '1',
        tax: [{ code: 'JP-10' }],
      },
      {
        day: 0,
        category: 'meal',
        amount: '5400',
        country: 'JP',
        merchant: 'Kaki no Ie',
        text: 'Supper with the co-operative',
        estimate: '2',
        tax: [{ code: 'JP-10' }],
      },
      {
        day: 1,
        category: 'supplies',
        amount: '21560',
        country: 'JP',
        merchant: 'Hinase Tackle',
        text: 'Reef modules',
        estimate: '3',
        tax: [{ code: 'JP-10', tax: '1960' }],
        split: {
          by: 'weight',
          shares: [
            { coding: { costCentre: '410' }, value: '2' },
            { coding: { costCentre: '430' }, value: '1' },
          ],
        },
      },
    ],
  },
];

const MERCHANTS = [
  'Slaney Pantry',
  'Harbour Rooms Wexford',
  'Rosslare Coach',
  'Wexford Chandlery',
  'Bannow Boats',
  'Cooley Cabs',
  'Marina Lodge Cork',
  'Leeside Stores',
];
const KINDS = ['meal', 'lodging', 'rail', 'supplies', 'hire', 'taxi', 'lodging', 'supplies'];
const CODES = ['IE-13.5', 'IE-13.5', null, 'IE-23', 'IE-23', null, 'IE-13.5', 'IE-23'];
const ERRANDS = [
  'Marsh transects',
  'Gate-keeper training',
  'Water sampling',
  'School visits',
  'Drone flights',
  'Sluice repairs',
  'Seed collection',
  'Bird ringing',
];
const PLACES = ['Bannow Bay', 'the Slaney mouth', 'Courtmacsherry', 'Tacumshin', 'the Cull bank', 'Ballyteige'];

/** Everything tied: claims to be cleared in two keys, and those that went further already. */
function tidy(index: number, state: string, lines: number): ClaimSeed {
  const random = randomFrom(9000 + index);
  const seeds = Array.from({ length: lines }, (_, i): LineSeed => {
    const kind = random.whole(0, MERCHANTS.length - 1);
    const amount = `${random.whole(9, 240)}.${String(random.whole(0, 99)).padStart(2, '0')}`;
    const code = CODES[kind];
    return {
      day: i % 4,
      category: KINDS[kind]!,
      amount,
      country: 'IE',
      merchant: MERCHANTS[kind]!,
      text: random.pick(['As planned', 'For the team', 'Receipt attached', 'Agreed with the lead']),
      ...(code ? { tax: [{ code }] } : {}),
    };
  });
  return {
    number: `C-${1000 + index}`,
    claimant: random.pick(['P05', 'P08', 'P10', 'P09']),
    entity: 'IE',
    currency: 'EUR',
    purpose: `${random.pick(ERRANDS)}, ${random.pick(PLACES)}`,
    daysAgo: random.whole(16, 45),
    days: 4,
    state,
    coding: random.pick([field, science]),
    lines: seeds,
  };
}

const further: [string, number][] = [
  ['in review', 20],
  ['in review', 3],
  ['cleared', 4],
  ['cleared', 3],
  ['cleared', 5],
  ['posted', 4],
  ['posted', 3],
  ['posted', 6],
  ['reversed', 3],
  ['paid', 4],
  ['part paid', 3],
  ['payment rejected', 2],
  ['with approver', 3],
  ['with approver', 4],
  ['draft', 2],
  ['returned', 3],
  ['declined', 2],
  ['withdrawn', 2],
  ['posted', 5],
];

/** All claims of the demo, the same every time. */
export const claims: ClaimSeed[] = [...written, ...further.map(([state, lines], i) => tidy(12 + i, state, lines))];
