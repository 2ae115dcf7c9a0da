import useSWR from 'swr';
import useSWRInfinite from 'swr/infinite';
import type { Coding } from '../../core/documents/case.schema.ts';
import { get, send } from './client.ts';

export interface JournalHeader {
  number: string;
  entity: string;
  currency: string;
  date: string;
  kind: 'posting' | 'reversal';
  live: boolean;
  claim: string;
  claimVersion: number;
  claimant: string;
  purpose: string;
  reason: string | null;
  postedBy: string;
  postedAt: string;
  reverses: string | null;
  reversedBy: string | null;
  total: string;
}
export interface PostedRow {
  position: number;
  account: string;
  coding: Coding;
  debit: string;
  credit: string;
  currency: string;
  amount: string;
  line: string | null;
  item: string | null;
  share: number | null;
  taxCode: string | null;
  text: string;
  origin: { merchant: string | null; category: string | null; date: string; receipt: string | null } | null;
}
export interface Period {
  id: string;
  from_date: string;
  to_date: string;
}
export interface JournalView {
  journal: JournalHeader;
  rows: PostedRow[];
  openPeriods: Period[];
}
export interface ReadyClaim {
  number: string;
  revision: number;
  entity: string;
  claimant: string;
  purpose: string;
  clearedBy: string;
  clearedById: string;
  claimantId: string;
}

interface JournalPage {
  journals: JournalHeader[];
  next: string | null;
}

export function useJournals() {
  return useSWRInfinite(
    (index, before: JournalPage | null) =>
      index === 0 ? '/journals' : before?.next ? `/journals?before=${before.next}` : null,
    get<JournalPage>,
  );
}
export const useReady = () => useSWR('/journals/ready', get<{ claims: ReadyClaim[] }>);
export const useJournal = (number: string) => useSWR(`/journals/${encodeURIComponent(number)}`, get<JournalView>);

export const postClaim = (body: {
  claim: string;
  revision: number;
  date: string;
  digest: string | null;
  key: string;
}) => send<{ journal: string }>('POST', '/journals', body);
export const reverse = (number: string, body: { date: string; reason: string; key: string }) =>
  send<{ journal: string }>('POST', `/journals/${encodeURIComponent(number)}/reversal`, body);
