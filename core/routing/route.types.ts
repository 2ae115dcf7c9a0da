import type { Quote } from '../documents/case.schema.ts';
import type { Dated } from '../numbers/isoDate.ts';
import type { Role } from '../workflow/lifecycle.types.ts';
import type { Routed, RouteLevel } from './route.schema.ts';

/** What is charged to one code, in decimal units of the ledger's currency; null: it cannot be computed. */
export interface ChargedCode {
  dimension: string;
  code: string;
  owner: string | null;
  amount: string | null;
}

/** A record as the routes look at it. */
export interface RoutedRecord {
  kind: Routed;
  /** The day of submission: whose levels, substitutes and rates hold. */
  on: string;
  entity: string;
  claimant: string;
  preparer: string;
  /** What it costs in all, as a decimal string; null: it cannot be computed. */
  total: { amount: string | null; currency: string };
  ledgerCurrency: string;
  charged: readonly ChargedCode[];
  categories: readonly string[];
}

export interface RoutePerson {
  id: string;
  kind: 'employee' | 'contractor';
  active: boolean;
  usualApprover: string | null;
  sponsor: string | null;
}

/** The part of the book that routes are computed from. */
export interface RouteBook {
  levels: readonly (RouteLevel & Dated & { id: string })[];
  people: readonly RoutePerson[];
  substitutes: readonly (Dated & { person: string; substitute: string })[];
  /** Roles that hold on the day; entity null is every entity. */
  roles: readonly { person: string; role: Role; entity: string | null }[];
  rates: readonly Quote[];
  pivot?: string | undefined;
  maxRateAge?: number | undefined;
}

/** Why somebody does not decide although the level names them, and who does instead; null: nobody does. */
export interface Detour {
  person: string;
  why: 'own' | 'prepared' | 'left' | 'away' | 'no role' | 'unknown';
  to: string | null;
  as: 'substitute' | 'above' | null;
}

/** One decision that is needed: of any one of these people, about these codes (none: about the record as a whole). */
export interface Need {
  people: string[];
  about: { dimension: string; code: string; amount: string | null }[];
  detours: Detour[];
}

/** Why a level, or a part of it, asks nobody. */
export type Skip =
  | { why: 'below'; total: string; currency: string; limit: string }
  | { why: 'category' }
  | { why: 'not charged' }
  | { why: 'not a contractor' }
  | { why: 'no owner'; dimension: string; code: string }
  | { why: 'decides already'; person: string; place: number; about: Need['about']; detours: Detour[] }
  | { why: 'nobody'; detours: Detour[]; about: Need['about'] };

export interface RoutedLevel {
  id: string;
  name: string;
  place: number;
  needs: Need[];
  skipped: Skip[];
}

/** Who decides about a record, level by level in order; `ask` when nobody is left: whom to ask to name somebody. */
export interface Route {
  levels: RoutedLevel[];
  unfilled: { level: string; ask: string[] } | null;
}
