import type { AllowanceRate, MileageRate } from '../core/documents/allowance.schema.ts';
import type { PlanTemplate } from '../core/documents/plan.schema.ts';
import type { EstimateSet, NewEstimate } from '../contract/plans.ts';

/** What plans for each kind of trip begin with. */
export const planTemplates: (PlanTemplate & { id: string })[] = [
  {
    id: 'field-home',
    name: 'Field work at home',
    lines: [
      { category: 'rail', description: 'There and back', per: 'trip' },
      { category: 'meal', description: 'Daily allowance', per: 'allowance' },
      { category: 'supplies', description: 'Supplies', per: 'trip' },
    ],
  },
  {
    id: 'field-abroad',
    name: 'Field work abroad',
    lines: [
      { category: 'air', description: 'Flight, there and back', per: 'trip' },
      { category: 'lodging', description: 'Nights', per: 'night' },
      { category: 'meal', description: 'Daily allowance', per: 'allowance' },
      { category: 'hire', description: 'Boat or gear', per: 'trip' },
      { category: 'taxi', description: 'To and from the airport', per: 'trip', count: 2 },
    ],
  },
  {
    id: 'conference',
    name: 'Conference',
    lines: [
      { category: 'fee', description: 'Registration', per: 'trip' },
      { category: 'air', description: 'Flight, there and back', per: 'trip' },
      { category: 'lodging', description: 'Nights', per: 'night' },
      { category: 'meal', description: 'Daily allowance', per: 'allowance' },
      { category: 'taxi', description: 'To and from the airport', per: 'trip', count: 2 },
    ],
  },
  {
    id: 'training',
    name: 'Training',
    lines: [
      { category: 'fee', description: 'Course fee', per: 'trip' },
      { category: 'rail', description: 'There and back', per: 'trip' },
      { category: 'lodging', description: 'Nights', per: 'night' },
    ],
  },
  {
    id: 'fund-raising',
    name: 'Fund-raising event',
    lines: [
      { category: 'hire', description: 'Hall', per: 'day' },
      { category: 'meal', description: 'Supper for guests', per: 'trip' },
      { category: 'supplies', description: 'Printed matter', per: 'trip' },
    ],
  },
];

const QUARTERS = { breakfast: { percent: '20' }, lunch: { percent: '40' }, dinner: { percent: '40' } };
const abroad = (country: string, currency: string, full: string, more: Partial<AllowanceRate> = {}) => ({
  id: `day-${(more.place ?? country).toLowerCase()}`,
  rule: { country, currency, full, edge: '75', meals: QUARTERS, ...more },
});

/** Daily allowances, invented. */
export const allowanceRates: { id: string; rule: Omit<AllowanceRate, 'from' | 'to'> }[] = [
  abroad('IE', 'EUR', '38.00', { taxFree: '38.00' }),
  abroad('PT', 'EUR', '46.00'),
  abroad('PT', 'EUR', '54.00', { place: 'Lisboa' }),
  abroad('GB', 'GBP', '42.00'),
  abroad('NO', 'NOK', '620.00'),
  abroad('JP', 'JPY', '6000'),
  abroad('KE', 'KES', '5200.00'),
  abroad('BH', 'BHD', '17.500'),
];

/** Mileage by vehicle, invented: less for each further unit of a year. */
export const mileageRates: { id: string; rule: Omit<MileageRate, 'from' | 'to'> }[] = [
  {
    id: 'car-eur',
    rule: {
      vehicle: 'car',
      currency: 'EUR',
      unit: 'km',
      tiers: [
        { upTo: '5000', rate: '0.42' },
        { upTo: null, rate: '0.24' },
      ],
      passenger: '0.05',
    },
  },
  {
    id: 'cycle-eur',
    rule: { vehicle: 'bicycle', currency: 'EUR', unit: 'km', tiers: [{ upTo: null, rate: '0.11' }] },
  },
  {
    id: 'car-jpy',
    rule: { vehicle: 'car in Japan', currency: 'JPY', unit: 'km', tiers: [{ upTo: null, rate: '37' }] },
  },
];

/** By how much actual cost may exceed an estimate. */
export const planTolerances: Record<string, { percent: string; amount: string }> = {
  IE: { percent: '10', amount: '25.00' },
  JP: { percent: '10', amount: '2000' },
};

/** A plan of the demo; days count from the day the demo is loaded. */
export interface PlanSeed {
  claimant: string;
  preparer?: string;
  kind: string;
  purpose: string;
  country?: string;
  place?: string;
  begins?: number;
  days: number;
  privateDay?: number;
  coding: Record<string, string>;
  state: 'draft' | 'with approver' | 'approved' | 'declined';
  /** What is said instead of what the template and the limits say, by the number of the estimate. */
  set?: Record<string, EstimateSet>;
  more?: NewEstimate[];
  /** The claim that came of it. */
  claim?: string;
}

const price = (amount: string, currency = 'EUR') => ({ price: { amount, currency } });

export const plans: PlanSeed[] = [
  {
    claimant: 'P07',
    kind: 'field-home',
    purpose: 'Oyster reef workshop, Hinase',
    country: 'JP',
    place: 'Hinase',
    begins: -14,
    days: 2,
    coding: { costCentre: '430', fund: '10', project: 'FLAT-07' },
    state: 'approved',
    set: { '1': price('9000', 'JPY'), '3': price('18000', 'JPY') },
    claim: 'C-1011',
  },
  {
    claimant: 'P05',
    kind: 'conference',
    purpose: 'Estuaries congress, Lisboa',
    country: 'PT',
    place: 'Lisboa',
    begins: 20,
    days: 5,
    privateDay: 4,
    coding: { costCentre: '420', fund: '10' },
    state: 'approved',
    set: { '1': price('310.00'), '2': price('218.40'), '5': price('18.00') },
  },
  {
    claimant: 'P08',
    preparer: 'P13',
    kind: 'field-abroad',
    purpose: 'Mangrove nursery, Gazi Bay: seedling count and the second planting',
    country: 'KE',
    place: 'Gazi',
    begins: 12,
    days: 9,
    coding: { costCentre: '410', fund: '10', project: 'MANG-02' },
    state: 'with approver',
    set: {
      '1': price('1140.00', 'USD'),
      '2': price('9800.00', 'KES'),
      '4': price('64000.00', 'KES'),
      '5': price('3500.00', 'KES'),
    },
  },
  {
    claimant: 'P05',
    kind: 'training',
    purpose: 'Drone licence',
    country: 'IE',
    days: 3,
    coding: { costCentre: '420', fund: '10' },
    state: 'draft',
  },
  {
    claimant: 'P05',
    kind: 'fund-raising',
    purpose: 'Evening for the friends of the marsh',
    country: 'IE',
    place: 'Wexford',
    begins: 9,
    days: 1,
    coding: { costCentre: '430', fund: '10' },
    state: 'declined',
    set: { '1': price('450.00'), '2': price('2400.00'), '3': price('180.00') },
  },
];
