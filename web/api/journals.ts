import useSWR from 'swr';
import useSWRInfinite from 'swr/infinite';
import { postedAnswer } from '../../contract/claims.ts';
import { journalAnswer, journalsAnswer, readyAnswer } from '../../contract/journals.ts';
import { getter, send } from './client.ts';

export type { JournalAnswer, JournalHeader, JournalRow, ReadyClaim } from '../../contract/journals.ts';

/** What is looked for among the journals; an empty text is no wish. */
export interface JournalWishes {
  entity: string;
  from: string;
  to: string;
  q: string;
  state: string;
  order: string;
}
export function useJournals(wishes: JournalWishes) {
  const wanted = Object.entries(wishes).filter(([, value]) => value !== '');
  const path = (before: string | null) =>
    `/journals?${new URLSearchParams([...wanted, ...(before === null ? [] : [['before', before]])] as [string, string][])}`;
  return useSWRInfinite(
    (index, last: { next: string | null } | null) => (index > 0 && !last?.next ? null : path(last?.next ?? null)),
    getter(journalsAnswer),
    { keepPreviousData: true },
  );
}
export const useReady = () => useSWR('/journals/ready', getter(readyAnswer));
export const useJournal = (number: string) => useSWR(`/journals/${encodeURIComponent(number)}`, getter(journalAnswer));

export const reverse = (number: string, body: { date: string; reason: string }) =>
  send('POST', `/journals/${encodeURIComponent(number)}/reversal`, postedAnswer, body);
