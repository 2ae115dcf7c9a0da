import useSWR from 'swr';
import useSWRInfinite from 'swr/infinite';
import type { Assessment } from '../../core/documents/assessment.schema.ts';
import type { Case, Claim, Coding, Split, TaxEntry } from '../../core/documents/case.schema.ts';
import type { Reading } from '../../core/evidence/reading/reading.types.ts';
import type { Evidence, Tie, TieKind, TieState } from '../../core/evidence/comparisons/tie.types.ts';
import { get, send } from './client.ts';

export interface TidePiece {
  state: string;
  from: string;
}
export interface QueueRow {
  number: string;
  version: number;
  revision: number;
  state: string;
  entity: string;
  claimant: string;
  purpose: string;
  submittedOn: string | null;
  currency: string;
  toPay: string | null;
  ledgerCurrency: string;
  atRisk: string;
  ties: Partial<Record<TieKind, ShownTie>>;
  stops: number;
  asks: number;
  holdUntil: string | null;
  tide: TidePiece[];
}
/** A tie's state with what the reviewer said of it. */
export type ShownTie = TieState | 'waived' | 'seen';

export interface QueuePage {
  claims: QueueRow[];
  next: string | null;
  counts: Record<string, number>;
}
export interface Mark {
  line: string;
  kind: TieKind;
  mark: 'seen' | 'waived';
  reason: string | null;
  by: string;
  at: string;
}
export interface Receipt {
  id: string;
  amount: string | null;
  currency: string | null;
  date: string | null;
  merchant: string | null;
  taxNumber: string | null;
  pages: { width: number; height: number }[];
  reading: Reading | null;
}
export interface HistoryEvent {
  seq: number;
  at: string;
  kind: string;
  facts: Record<string, unknown>;
  words: Record<string, unknown> | null;
  actor: string;
}
export interface ClaimHeader {
  number: string;
  version: number;
  revision: number;
  state: string;
  entity: string;
  entityName: string;
  claimant: string;
  claimantId: string;
  claimantKind: string;
  preparer: string;
  approver: string | null;
  clearedBy: string | null;
  currency: string;
  ledgerCurrency: string;
  purpose: string;
  tripFrom: string | null;
  tripTo: string | null;
  submittedOn: string | null;
  holdReason: string | null;
  holdUntil: string | null;
}
export type Act = 'correct' | 'clear' | 'return' | 'hold' | 'reopen' | 'post' | 'reverse';

export interface ClaimView {
  claim: ClaimHeader;
  document: Case;
  assessment: Assessment;
  digest: string;
  ties: Tie[];
  marks: Mark[];
  queries: { line: string; kind: string | null; text: string; by: string; at: string }[];
  evidence: Evidence;
  receipts: Record<string, Receipt>;
  tide: TidePiece[];
  history: HistoryEvent[];
  journals: { number: string; kind: string; date: string; live: boolean }[];
  submitted: Claim | null;
  may: Act[];
}
/** The fields of a line or item finance may correct; missing ones stay. */
export interface CorrectionSet {
  category?: string;
  coding?: Coding;
  split?: Split | null;
  tax?: TaxEntry[];
}
export interface Correction {
  revision: number;
  item: string | null;
  set: CorrectionSet;
}

export function useQueue(state: string, q: string) {
  const query = (after: string | null) =>
    `/claims?${new URLSearchParams({ state, ...(q ? { q } : {}), ...(after ? { after } : {}) })}`;
  return useSWRInfinite(
    (index, before: QueuePage | null) => (index > 0 && !before?.next ? null : query(before?.next ?? null)),
    get<QueuePage>,
    {
      keepPreviousData: true,
    },
  );
}

export const useOwnClaims = () => useSWR('/claims/own', get<{ claims: QueueRow[] }>);
export const useClaim = (number: string) =>
  useSWR(`/claims/${encodeURIComponent(number)}`, get<ClaimView>, { revalidateOnFocus: false });

/** The acts of review; each answers with the claim as it is afterwards. */
export function claimActs(number: string) {
  const path = `/claims/${encodeURIComponent(number)}`;
  return {
    correct: (line: string, correction: Correction) =>
      send<ClaimView>('PUT', `${path}/lines/${encodeURIComponent(line)}`, correction),
    mark: (body: {
      revision: number;
      line: string;
      kind: TieKind;
      mark: 'seen' | 'waived' | 'none';
      reason?: string;
    }) => send<ClaimView>('POST', `${path}/marks`, body),
    ask: (body: { revision: number; line: string; kind: TieKind | null; text: string }) =>
      send<ClaimView>('POST', `${path}/queries`, body),
    clear: (revision: number) => send<ClaimView>('POST', `${path}/clear`, { revision }),
    reopen: (revision: number) => send<ClaimView>('POST', `${path}/reopen`, { revision }),
    giveBack: (revision: number, reason: string) => send<ClaimView>('POST', `${path}/return`, { revision, reason }),
    hold: (revision: number, hold: { reason: string; until: string } | null) =>
      send<ClaimView>('PUT', `${path}/hold`, { revision, hold }),
  };
}
export type ClaimActs = ReturnType<typeof claimActs>;
