import type { Coding } from '../../../core/documents/case.schema.ts';

/** What a journal is made for. */
export const PURPOSES = [
  'claim',
  'advance payout',
  'advance returned',
  'payment',
  'card payment',
  'accrual',
  'revaluation',
  'reclassification',
  'reversal',
] as const;
export type Purpose = (typeof PURPOSES)[number];

/** What a journal, an open item or a budget movement comes from. */
export interface Source {
  kind: 'claim' | 'advance' | 'card' | 'entity' | 'payment';
  id: string;
}

/** A journal as a row of the database; amounts in minor units. */
export interface JournalRecord {
  id: bigint;
  number: string;
  entity_id: string;
  currency: string;
  date: string;
  period_id: string;
  purpose: Purpose;
  source_kind: Source['kind'];
  source_id: string;
  reverses: bigint | null;
  corrects: bigint | null;
  undone_on: string | null;
  live: boolean;
  reason: string | null;
  posted_by: string;
  posted_at: Date;
  hash: string;
}

export interface JournalRowRecord {
  position: number;
  account: string;
  coding: Coding;
  debit: bigint;
  credit: bigint;
  currency: string;
  amount: bigint;
  line_id: string | null;
  item_id: string | null;
  share: number | null;
  tax_code: string | null;
  text: string;
}

/** How one row of a journal moves what is open on a control account. */
export interface MovementRecord {
  position: number;
  kind: 'payable' | 'receivable' | 'staff advance' | 'card clearing' | 'central clearing';
  account: string;
  currency: string;
  person_id: string | null;
  source_kind: Source['kind'];
  source_id: string;
  amount: bigint;
  ledger_amount: bigint;
}

/** One tax of a journal with its base, in ledger minor units. */
export interface TaxRowRecord {
  position: number;
  code: string;
  component: string | null;
  date: string;
  base: bigint;
  tax: bigint;
  recoverable: bigint;
  line_id: string;
  item_id: string | null;
}

/** The version of a claim as the ledger names it. */
export const claimSource = (number: string, version: number): Source => ({ kind: 'claim', id: `${number}/${version}` });
