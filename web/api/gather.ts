import useSWR from 'swr';
import type { MonthProof } from '../../core/evidence/statements/reconcileMonth.ts';
import type { Item } from '../../core/documents/case.schema.ts';
import type { Pair } from '../../core/evidence/matching/matching.types.ts';
import type { Reading } from '../../core/evidence/reading/reading.types.ts';
import type { ClaimView } from './claims.ts';
import { get, send } from './client.ts';

export interface Page {
  width: number;
  height: number;
}
export interface Confirmed {
  amount: string;
  currency: string;
  date: string;
  merchant: string;
  taxNumber: string | null;
  cardDigits: string | null;
  taxes: { rate: string; base: string | null; tax: string | null }[];
}
export interface GatheredReceipt {
  id: string;
  name: string;
  cameIn: string | null;
  addedAt: string;
  kind: 'picture' | 'pdf' | 'invoice' | 'mail';
  pages: Page[];
  state: 'waiting' | 'read' | 'failed';
  problem: string | null;
  method: 'recognised' | 'text' | 'e-invoice' | null;
  reading: Reading | null;
  remarks: string[];
  confirmed: Confirmed | null;
  usedOn: { claim: string; line: string; state: string }[];
  alike: { exact: boolean; own: boolean; id: string | null; name: string | null; addedAt: string }[];
}
export interface Charge {
  id: string;
  card: string;
  label: string;
  cardKind: 'company' | 'purchasing';
  holder: string;
  bookedOn: string;
  purchasedOn: string;
  amount: string;
  currency: string;
  settled: { amount: string; currency: string };
  merchant: string;
  country: string | null;
  categoryCode: string | null;
  category: string | null;
  state: 'open' | 'partly on claims' | 'on a claim' | 'claimed already';
  reason: string | null;
  left: string;
  lines: { claim: string; line: string; state: string; personal: boolean; amount: string; currency: string }[];
}
export interface PairLine {
  ref: string;
  claim: string;
  line: string;
  date: string;
  amount: string;
  currency: string;
  merchant: string | null;
  category: string | null;
  paidBy: string;
  personal: boolean;
  receipt: string | null;
  charge: string | null;
}
export interface LooseReceipt {
  id: string;
  name: string;
  state: string;
  amount: string | null;
  currency: string | null;
  date: string | null;
  merchant: string | null;
}
export interface PairsView {
  revisions: Record<string, number>;
  drafts: { number: string; purpose: string; revision: number }[];
  lines: PairLine[];
  charges: Charge[];
  receipts: LooseReceipt[];
  proposals: { charges: Pair[]; receipts: Pair[]; spendings: Pair[] };
}
export interface CardView {
  id: string;
  label: string;
  kind: 'company' | 'purchasing';
  currency: string;
  holder: string;
  own: boolean;
  months: { month: string; charges: number; closedBy: string | null; closedAt: string | null }[];
}
export interface MonthView {
  card: Omit<CardView, 'months' | 'own'>;
  month: string;
  charges: Charge[];
  statements: {
    id: string;
    name: string;
    source: string;
    from: string;
    to: string;
    opening: string;
    closing: string;
    entries: number;
  }[];
  proof: MonthProof;
  closedBy: string | null;
  closedAt: string | null;
}
export interface StatementRow {
  id: string;
  source: 'feed' | 'file';
  name: string;
  format: string;
  card: string | null;
  label: string | null;
  currency: string | null;
  from: string | null;
  to: string | null;
  opening: string | null;
  closing: string | null;
  entries: number;
  added: number;
  state: 'imported' | 'refused';
  says: string | null;
  by: string | null;
  at: string;
}
export interface Mapping {
  delimiter: string;
  mark: '.' | ',';
  order: 'dmy' | 'mdy' | 'ymd';
  spent: 'positive' | 'negative';
  date: number;
  amount: number;
  merchant: number;
  purchased: number | null;
  reference: number | null;
  originalAmount: number | null;
  originalCurrency: number | null;
  categoryCode: number | null;
}
export interface Outcome {
  account: string | null;
  from: string | null;
  to: string | null;
  state: 'imported' | 'there already' | 'refused';
  entries: number;
  added: number;
  says: string | null;
}
export type FileAnswer =
  | { kind: 'imported'; name: string; format: string; outcomes: Outcome[]; problems: { line: number; says: string }[] }
  | {
      kind: 'table';
      name: string;
      columns: string[];
      sample: string[][];
      rows: number;
      proposed: Partial<Mapping>;
      remembered: boolean;
    };

export type Added = { ok: true; name: string; id: string; fresh: boolean } | { ok: false; name: string; says: string };

const LOOK_AGAIN_MS = 1500;
/** A person's receipts; asked for again while some are still being read. */
export const useReceipts = () =>
  useSWR('/receipts', get<{ receipts: GatheredReceipt[] }>, {
    refreshInterval: (data) => (data?.receipts.some((r) => r.state === 'waiting') ? LOOK_AGAIN_MS : 0),
  });
export const useCharges = () => useSWR('/charges', get<{ charges: Charge[] }>);
export const usePairs = () => useSWR('/pairs', get<PairsView>, { revalidateOnFocus: false });
export const useCards = () => useSWR('/cards', get<{ cards: CardView[] }>);
export const useMonth = (card: string, month: string) => useSWR(`/cards/${card}/months/${month}`, get<MonthView>);
export const useStatements = (again: boolean) =>
  useSWR(
    '/statements',
    get<{ statements: StatementRow[]; feed: { connected: boolean; at: string | null; says: string | null } }>,
    {
      refreshInterval: again ? LOOK_AGAIN_MS : 0,
    },
  );

type Receipts = { receipts: GatheredReceipt[] };
export interface TakeRequest {
  claim: { number: string; revision: number } | null;
  purpose: string | null;
  take: { receipt?: string | null; charge?: string | null; category?: string | null; personal?: boolean }[];
}
export interface PairWish {
  lines: { claim: string; line: string }[];
  charge?: string | null;
  receipt?: string | null;
  takeAmount?: boolean;
}

export const gather = {
  confirm: (id: string, facts: Confirmed) => send<Receipts>('PUT', `/receipts/${id}`, facts),
  readAgain: (id: string) => send<Receipts>('POST', `/receipts/${id}/read`),
  remove: (id: string) => send<Receipts>('DELETE', `/receipts/${id}`),
  bringBack: (id: string) => send<Receipts>('POST', `/receipts/${id}/back`),
  markCharge: (id: string, reason: string | null) =>
    send<{ charges: Charge[] }>('PUT', `/charges/${id}/mark`, { reason }),
  take: (request: TakeRequest) => send<{ number: string }>('POST', '/drafts/lines', request),
  pair: (revisions: Record<string, number>, pairs: PairWish[]) =>
    send<PairsView>('POST', '/pairs', { revisions, pairs }),
  unpair: (lines: { claim: string; line: string }[], what: 'charge' | 'receipt') =>
    send<PairsView>('POST', '/pairs/undo', { lines, what }),
  fetchFeed: () => send<object>('POST', '/feed'),
  closeMonth: (card: string, month: string, closed: boolean) =>
    send<MonthView>(closed ? 'PUT' : 'DELETE', `/cards/${card}/months/${month}/closed`),
  editLine: (claim: string, line: string, revision: number, set: { category?: string; items?: Item[] }) =>
    send<ClaimView>('PUT', `/drafts/${claim}/lines/${encodeURIComponent(line)}`, { revision, set }),
  removeLine: (claim: string, line: string, revision: number) =>
    send<ClaimView>('DELETE', `/drafts/${claim}/lines/${encodeURIComponent(line)}?revision=${revision}`),
};
