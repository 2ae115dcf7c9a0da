import type { CorrectionSet } from '../../contract/corrections.ts';

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
