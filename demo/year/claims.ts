import { fromMinor } from '../../core/numbers/amount.ts';
import type { ClaimSeed, LineSeed } from '../claims/claim.types.ts';
import { people as firstPeople } from '../people.ts';
import { randomFrom, type Random } from '../random.ts';
import { APPROVERS, people } from './organisation.ts';

/** A claim of the year with papers: which of its lines stand on one receipt. */
export interface YearClaim extends ClaimSeed {
  /** For each line the number of its paper; null: it has none. */
  papers: (number | null)[];
}

export const CLAIMS = 570;
const FIRST_NUMBER = 301;
const DAYS = 340;
/** Their own acts in the demo would forbid what these have to do. */
const NOT_CLAIMANTS = ['P02', 'P03'];

interface Shop {
  merchant: string;
  category: string;
  /** From and to, in minor units of the currency of the place. */
  costs: [number, number];
  tax?: string;
  what: string[];
}
interface Place {
  currency: string;
  shops: Shop[];
}
const shop = (merchant: string, category: string, costs: [number, number], what: string[], tax?: string): Shop => ({
  ...{ merchant, category, costs, what },
  ...(tax ? { tax } : {}),
});

/** Where money is spent: what the limits of the place allow, so that what is off is off on purpose. */
const PLACES: Record<string, Place> = {
  IE: {
    currency: 'EUR',
    shops: [
      shop('Slaney Pantry', 'meal', [900, 4200], ['Team lunch', 'Supper', 'Sandwiches'], 'IE-13.5'),
      shop('Wexford Chandlery', 'supplies', [700, 16000], ['Rope and markers', 'Waders', 'Sample jars'], 'IE-23'),
      shop('Bannow Boats', 'hire', [6000, 28000], ['Boat for a day', 'Outboard'], 'IE-23'),
      shop('Rosslare Coach', 'rail', [600, 5200], ['To the bay', 'There and back']),
      shop('Harbour Rooms Wexford', 'lodging', [7900, 14500], ['One night'], 'IE-13.5'),
      shop('Cooley Cabs', 'taxi', [800, 3900], ['From the station', 'To the sluice']),
    ],
  },
  NO: {
    currency: 'NOK',
    shops: [
      shop('Fjæra Kafé', 'meal', [9000, 42000], ['Lunch with the crew', 'Supper'], 'NO-15'),
      shop('Nordbrygga Utstyr', 'supplies', [12000, 190000], ['Nets', 'Batteries', 'Boots'], 'NO-25'),
      shop('Holmen Båtleie', 'hire', [80000, 260000], ['Boat for a day'], 'NO-25'),
      shop('Kystbussen', 'rail', [6000, 48000], ['To the station', 'There and back']),
      shop('Rorbu Vertshus', 'lodging', [90000, 170000], ['One night']),
    ],
  },
  JP: {
    currency: 'JPY',
    shops: [
      shop('Isonami Shokudo', 'meal', [700, 3800], ['Lunch', 'Supper'], 'JP-10'),
      shop('Hinase Tackle', 'supplies', [900, 24000], ['Reef modules', 'Gloves'], 'JP-10'),
      shop('Seto Rail Counter', 'rail', [420, 9800], ['To the flats', 'There and back'], 'JP-10'),
      shop('Minato Inn', 'lodging', [6200, 11500], ['One night'], 'JP-10'),
    ],
  },
  BH: {
    currency: 'BHD',
    shops: [
      shop('Hawar Kitchen', 'meal', [1500, 9800], ['Lunch', 'Supper'], 'BH-10'),
      shop('Sitra Marine Stores', 'supplies', [2400, 68000], ['Buoys', 'Seedling trays'], 'BH-10'),
      shop('Muharraq Boats', 'hire', [18000, 70000], ['Boat for a day'], 'BH-10'),
      shop('Pearl Taxis', 'taxi', [1200, 7400], ['To the nursery']),
    ],
  },
  PT: {
    currency: 'EUR',
    shops: [
      shop('Taberna da Ria', 'meal', [900, 2400], ['Supper']),
      shop('Pensão do Farol', 'lodging', [6200, 11500], ['One night']),
      shop('Moliceiro Transportes', 'taxi', [900, 3200], ['To the salt pans']),
    ],
  },
  US: {
    currency: 'USD',
    shops: [
      shop('Chesapeake Field Supply', 'supplies', [900, 21000], ['Sieves', 'Sample bags']),
      shop('Tidewater Lodge', 'lodging', [9800, 18900], ['One night']),
      shop('Osprey Diner', 'meal', [1100, 3800], ['Supper']),
    ],
  },
};
const ERRANDS = [
  'Marsh transects',
  'Water sampling',
  'School visits',
  'Sluice repairs',
  'Seed collection',
  'Bird ringing',
  'Eelgrass survey',
  'Community evening',
];
const WHERE: Record<string, string[]> = {
  IE: ['Bannow Bay', 'Tacumshin', 'the Cull bank', 'Courtmacsherry'],
  NO: ['Grandefjæra', 'Giske', 'Tautra'],
  JP: ['Ariake', 'Hinase', 'Sone'],
  BH: ['Tubli Bay', 'Arad', 'Hawar'],
};
const CODINGS: Record<string, string>[] = [
  { costCentre: '410', fund: '10', project: 'REED-11' },
  { costCentre: '420', fund: '20', project: 'TIDE-04' },
  { costCentre: '420', fund: '10', project: 'FLAT-07' },
  { costCentre: '430', fund: '10' },
];

/** What becomes of a claim, by how many days ago it was. */
function stateOf(daysAgo: number, random: Random): string {
  const roll = random.next();
  if (daysAgo < 12) return roll < 0.35 ? 'draft' : roll < 0.75 ? 'with approver' : 'in review';
  if (daysAgo < 30)
    return roll < 0.72 ? 'in review' : roll < 0.82 ? 'cleared' : roll < 0.9 ? 'returned' : 'with approver';
  if (daysAgo < 60) return roll < 0.2 ? 'cleared' : roll < 0.6 ? 'posted' : roll < 0.93 ? 'paid' : 'part paid';
  if (roll < 0.9) return 'paid';
  return random.pick(['posted', 'declined', 'withdrawn', 'reversed', 'payment rejected', 'part paid']);
}

/** The claims of a year, the oldest first; the same every time. */
export function yearClaims(count = CLAIMS): YearClaim[] {
  const all = [...firstPeople, ...people].filter((p) => p.roles.includes('claimant') && !NOT_CLAIMANTS.includes(p.id));
  return Array.from({ length: count }, (_, i) => {
    const random = randomFrom(20_000 + i);
    const approvers = Object.values(APPROVERS);
    const claimant = random.pick(all.filter((p) => !approvers.includes(p.id)));
    const daysAgo = Math.max(3, Math.round(DAYS - (i * DAYS) / count));
    const days = Math.min(daysAgo - 1, random.whole(1, 5));
    return {
      number: `C-${FIRST_NUMBER + i}`,
      claimant: claimant.id,
      entity: claimant.entity,
      currency: claimant.currency,
      purpose: `${random.pick(ERRANDS)}, ${random.pick(WHERE[claimant.entity]!)}`,
      ...{ daysAgo, days },
      state: stateOf(daysAgo, random),
      took: random.whole(4, 16),
      coding: random.pick(CODINGS),
      ...linesOf(claimant.entity, days, random),
    };
  });
}

/** Lines, a few on each paper: what one shop sold on one day. */
function linesOf(entity: string, days: number, random: Random): Pick<YearClaim, 'lines' | 'papers'> {
  const [lines, papers]: [LineSeed[], number[]] = [[], []];
  const wanted = random.whole(2, 12);
  for (let paper = 0; lines.length < wanted; paper += 1) {
    const country = random.next() < 0.8 ? entity : random.pick(['PT', 'US', 'IE']);
    const { currency, shops } = PLACES[country]!;
    const from = random.pick(shops);
    const day = random.whole(0, days - 1);
    for (let left = from.category === 'lodging' ? 1 : random.whole(2, 6); left > 0; left -= 1) {
      lines.push({
        ...{ day, country, currency, merchant: from.merchant, category: from.category, text: random.pick(from.what) },
        amount: fromMinor(BigInt(random.whole(...from.costs)), currency),
        ...(from.tax ? { tax: [{ code: from.tax }] } : {}),
        ...(from.category === 'lodging' ? { nights: 1 } : {}),
        ...(from.category === 'meal' ? { attendees: { count: 6 } } : {}),
      });
      papers.push(paper);
    }
  }
  return { lines, papers };
}
