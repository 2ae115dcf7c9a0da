import useSWR from 'swr';
import useSWRInfinite from 'swr/infinite';
import { postedAnswer } from '../../contract/claims.ts';
import { journalAnswer, journalsAnswer, readyAnswer } from '../../contract/journals.ts';
import { getter, send } from './client.ts';

export type { JournalAnswer, JournalHeader, JournalRow, ReadyClaim } from '../../contract/journals.ts';

export const useJournals = () =>
  useSWRInfinite(
    (index, before: { next: string | null } | null) =>
      index === 0 ? '/journals' : before?.next ? `/journals?before=${before.next}` : null,
    getter(journalsAnswer),
  );
export const useReady = () => useSWR('/journals/ready', getter(readyAnswer));
export const useJournal = (number: string) => useSWR(`/journals/${encodeURIComponent(number)}`, getter(journalAnswer));

export const reverse = (number: string, body: { date: string; reason: string; key: string }) =>
  send('POST', `/journals/${encodeURIComponent(number)}/reversal`, postedAnswer, body);
