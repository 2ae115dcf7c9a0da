import { randomFrom } from '../random.ts';
import type { ClaimSeed, LineSeed } from './claim.types.ts';
import { field, science } from './codings.ts';

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

/** Claims made from a seed, with everything tied, in every state. */
export const tidyClaims: ClaimSeed[] = further.map(([state, lines], i) => tidy(12 + i, state, lines));
