import type { CategoryField } from '../core/documents/category.schema.ts';
import type { CodingRule, Limit } from '../core/documents/rules.schema.ts';

/** Saltmarsh Commons, an invented coastal-restoration foundation. Nobody and nothing here is real. */

const accounts = {
  claimantPayable: '2110',
  supplierPayable: '2120',
  cardClearing: '2130',
  centralClearing: '2140',
  staffAdvances: '1310',
  staffReceivable: '1320',
  exchangeDifference: '7990',
  bank: '1010',
  accruals: '2190',
};

export const entities = [
  {
    id: 'IE',
    name: 'Saltmarsh Commons Ireland',
    currency: 'EUR',
    time_zone: 'Europe/Dublin',
    rate_date: 'line',
    tax_registrations: ['IE'],
    recovery: '100',
    own_rate_tolerance: '3',
    tax_number_required: true,
    accounts,
    cards: { '4410': '2131', '4427': '2132', '4433': '2134' },
  },
  {
    id: 'JP',
    name: 'Saltmarsh Commons Japan',
    currency: 'JPY',
    time_zone: 'Asia/Tokyo',
    rate_date: 'line',
    tax_registrations: ['JP'],
    recovery: '100',
    own_rate_tolerance: '3',
    tax_number_required: true,
    accounts,
    cards: { '8803': '2133' },
  },
];

export const accountNames: [string, string][] = [
  ['1010', 'Bank'],
  ['1310', 'Staff advances'],
  ['1320', 'Receivable from staff'],
  ['1410', 'Input tax Ireland'],
  ['1413', 'Input tax Portugal'],
  ['1416', 'Input tax United Kingdom'],
  ['1418', 'Consumption tax Japan'],
  ['2110', 'Payable to claimants'],
  ['2120', 'Payable to suppliers'],
  ['2130', 'Card clearing'],
  ['2131', 'Card clearing 4410'],
  ['2132', 'Card clearing 4427'],
  ['2133', 'Card clearing 8803'],
  ['2134', 'Card clearing 4433'],
  ['2140', 'Central bookings clearing'],
  ['2190', 'Accruals'],
  ['2610', 'Output tax Ireland, self-assessed'],
  ['6210', 'Lodging'],
  ['6220', 'Meals'],
  ['6230', 'Rail and bus'],
  ['6231', 'Air travel'],
  ['6232', 'Taxi and local transport'],
  ['6240', 'Mileage'],
  ['6250', 'Daily allowances'],
  ['6310', 'Field supplies'],
  ['6330', 'Boat and gear hire'],
  ['6410', 'Conference and training fees'],
  ['6510', 'Telephone and data'],
  ['7990', 'Exchange differences'],
];

/** Merchant category codes (ISO 18245, from memory) for which each category is proposed. */
export const merchantCodes: Record<string, string[]> = {
  lodging: ['7011'],
  meal: ['5812', '5814', '5813'],
  rail: ['4111', '4112', '4131'],
  air: ['4511'],
  taxi: ['4121', '7523'],
  supplies: ['5411', '5941', '5200', '5085'],
  hire: ['7394', '7512', '4457'],
  fee: ['8299', '8699'],
  phone: ['4814'],
};

export const categories: [string, string, string, string][] = [
  ['lodging', 'Lodging', '6210', '100'],
  ['meal', 'Meal', '6220', '0'],
  ['rail', 'Rail or bus', '6230', '100'],
  ['air', 'Air travel', '6231', '100'],
  ['taxi', 'Taxi', '6232', '100'],
  ['supplies', 'Field supplies', '6310', '100'],
  ['hire', 'Boat or gear hire', '6330', '100'],
  ['fee', 'Conference or training fee', '6410', '100'],
  ['phone', 'Telephone or data', '6510', '50'],
  ['mileage', 'Mileage', '6240', '100'],
  ['allowance', 'Daily allowance', '6250', '100'],
];

const optional = (name: string, label: string, more: Partial<CategoryField> = {}): CategoryField => ({
  name,
  label,
  need: 'optional',
  ...more,
});
const required = (name: string, label: string): CategoryField => ({ name, label, need: 'required' });

/** What each category asks of its lines. */
export const categoryFields: Record<string, CategoryField[]> = {
  lodging: [optional('nights', 'Nights')],
  meal: [optional('attendees', 'People', { namesUnder: 6 })],
  rail: [optional('route', 'Route'), optional('ticket', 'Ticket number')],
  air: [optional('route', 'Route'), optional('ticket', 'Ticket number')],
  taxi: [optional('route', 'From and to')],
  hire: [optional('days', 'Days')],
  fee: [optional('event', 'Event and place'), optional('eventDate', 'Date of the event', { as: 'date' })],
  mileage: [required('journey', 'The journey')],
  allowance: [required('stay', 'Days away')],
};

interface TaxCodeSeed {
  code: string;
  name: string;
  country: string;
  rate: string;
  account: string;
  recovery?: string;
  self_assessed?: boolean;
  output_account?: string;
}

export const taxCodes: TaxCodeSeed[] = [
  { code: 'IE-23', name: 'Irish VAT, standard', country: 'IE', rate: '23', account: '1410' },
  { code: 'IE-13.5', name: 'Irish VAT, reduced', country: 'IE', rate: '13.5', account: '1410' },
  { code: 'IE-0', name: 'Irish VAT, zero-rated', country: 'IE', rate: '0', account: '1410' },
  {
    code: 'IE-SA23',
    name: 'Irish VAT on services from abroad, self-assessed',
    country: 'IE',
    rate: '23',
    account: '1410',
    self_assessed: true,
    output_account: '2610',
  },
  { code: 'PT-6', name: 'Portuguese VAT, reduced', country: 'PT', rate: '6', account: '1413' },
  { code: 'PT-23', name: 'Portuguese VAT, standard', country: 'PT', rate: '23', account: '1413' },
  { code: 'GB-20', name: 'UK VAT, standard', country: 'GB', rate: '20', account: '1416' },
  { code: 'JP-10', name: 'Japanese consumption tax', country: 'JP', rate: '10', account: '1418' },
  { code: 'JP-8', name: 'Japanese consumption tax, reduced', country: 'JP', rate: '8', account: '1418' },
];

export const dimensions: [string, string][] = [
  ['costCentre', 'Cost centre'],
  ['fund', 'Fund'],
  ['project', 'Project'],
  ['grant', 'Grant'],
  ['spendType', 'Spend type'],
];

export const dimensionValues: [string, string, string, string | null][] = [
  ['costCentre', '410', 'Field programmes', 'P09'],
  ['costCentre', '420', 'Coastal science', 'P09'],
  ['costCentre', '430', 'Community and learning', 'P07'],
  ['costCentre', '440', 'Office and governance', 'P03'],
  ['fund', '10', 'General', 'P03'],
  ['fund', '20', 'Restricted', 'P03'],
  ['fund', '30', 'Endowment', 'P03'],
  ['project', 'TIDE-04', 'Tidal gates of the Slaney', 'P09'],
  ['project', 'REED-11', 'Reed-bed survey', 'P09'],
  ['project', 'FLAT-07', 'Ariake tidal flats', 'P07'],
  ['project', 'MANG-02', 'Mangrove nursery', 'P09'],
  ['grant', 'G-118', 'Estuaries Trust, monitoring', 'P09'],
  ['grant', 'G-204', 'Blue Carbon Circle, nursery', 'P07'],
  ['spendType', 'travel', 'Travel', null],
  ['spendType', 'materials', 'Materials', null],
  ['spendType', 'services', 'Services', null],
];

/** Units of each currency for one euro, around which the invented daily rates wander. */
export const euroRates: [string, number, number][] = [
  ['USD', 1.0834, 4],
  ['GBP', 0.8412, 5],
  ['NOK', 11.63, 4],
  ['JPY', 163.4, 2],
  ['KES', 140.2, 2],
  ['BHD', 0.4085, 5],
];

/** What the grants have to spend, in minor units of the entity's ledger; null category is the whole budget. */
export const budgets: [string, string, string, string | null, number][] = [
  ['IE', 'grant', 'G-118', null, 26_000],
  ['IE', 'grant', 'G-204', null, 240_000],
  ['IE', 'grant', 'G-204', 'air', 50_000],
];

/** Categories a grant may be charged with; the others take all. */
export const grantCategories: Record<string, string[]> = {
  'G-204': ['lodging', 'hire', 'supplies', 'air', 'taxi', 'fee'],
};

export const codingRules: CodingRule[] = [
  { id: 'grant-fund', severity: 'stop', when: { grant: '*' }, allow: { fund: ['20'] }, owner: 'Odd Fjellheim' },
  {
    id: 'endowment',
    severity: 'stop',
    when: { fund: ['30'] },
    allow: { costCentre: ['440'] },
    says: 'The endowment pays for governance (cost centre 440) alone. Ask Odd Fjellheim.',
  },
];

/** Everything that is bought; of a journey or a day away there is no receipt. */
const purchases = categories.map(([id]) => id).filter((id) => id !== 'mileage' && id !== 'allowance');

export const limits: Limit[] = [
  {
    id: 'lodging-pt',
    kind: 'cap',
    per: 'night',
    severity: 'ask',
    categories: ['lodging'],
    countries: ['PT'],
    cap: { amount: '120.00', currency: 'EUR' },
  },
  {
    id: 'lodging-gb',
    kind: 'cap',
    per: 'night',
    severity: 'ask',
    categories: ['lodging'],
    countries: ['GB'],
    cap: { amount: '110.00', currency: 'GBP' },
  },
  {
    id: 'lodging-jp',
    kind: 'cap',
    per: 'night',
    severity: 'ask',
    categories: ['lodging'],
    countries: ['JP'],
    cap: { amount: '12000', currency: 'JPY' },
  },
  {
    id: 'meal-abroad',
    kind: 'cap',
    per: 'head',
    severity: 'ask',
    categories: ['meal'],
    countries: ['PT', 'JP', 'GB'],
    cap: { amount: '30.00', currency: 'EUR' },
    tolerance: '10',
  },
  {
    id: 'receipt',
    kind: 'receipt',
    severity: 'ask',
    categories: purchases,
    above: { amount: '25.00', currency: 'EUR' },
  },
  { id: 'old', kind: 'age', severity: 'ask', days: 90 },
  { id: 'ledger-text', kind: 'text', severity: 'ask', longest: 60 },
];

/** What whoever hands a claim in says with it. */
export const policyStatement =
  'What is claimed was spent for the work of Saltmarsh Commons, as its travel policy allows, and nobody else pays for it.';
