import { useMemo, useState } from 'react';
import useSWR from 'swr';
import type { Case } from '../../core/documents/case.schema.ts';
import { joinBook } from '../../core/documents/splitBook.ts';
import type { TieKind } from '../../core/evidence/comparisons/tie.types.ts';
import {
  bookAnswer,
  claimAnswer,
  journalPreview,
  ownClaimsAnswer,
  postedAnswer,
  type ClaimAnswer,
  type FinanceAnswer,
  type PostRequest,
} from '../../contract/claims.ts';
import type { LineCorrection } from '../../contract/corrections.ts';
import { pathOfAct } from '../../contract/route.ts';
import { act, getter, send } from './client.ts';
import { upload } from './upload.ts';

export type {
  SpentEstimate,
  ClaimAnswer,
  FinanceAnswer,
  HistoryEvent,
  JournalPreview,
  MakerView,
  OwnClaimRow,
  ShownMark,
  ShownQuery,
  TidePiece,
} from '../../contract/claims.ts';
export type { CorrectionSet, LineCorrection } from '../../contract/corrections.ts';

/** A claim as finance looks at it, its document whole again. */
export type ClaimView = Omit<FinanceAnswer, 'document'> & { document: Case };

const pathOf = (number: string): string => `/claims/${encodeURIComponent(number)}`;

export const useOwnClaims = () => useSWR('/claims/own', getter(ownClaimsAnswer));
/** A claim; looked at again every so many milliseconds while a receipt of it is being read, if that is given. */
export const useClaim = (number: string, again = 0) =>
  useSWR(pathOf(number), getter(claimAnswer), {
    revalidateOnFocus: false,
    refreshInterval: (view) => (view && Object.values(view.receipts).some((r) => r.state === 'waiting') ? again : 0),
  });

/** The shared part of a book never changes under its hash, so it is asked for once. */
const useBook = (hash: string | null) =>
  useSWR(hash === null ? null : `/books/${hash}`, getter(bookAnswer), {
    revalidateOnFocus: false,
    revalidateIfStale: false,
  });

export const isFinance = (answer: ClaimAnswer): answer is FinanceAnswer =>
  answer.audience === 'finance' || answer.audience === 'auditor';

/** A claim for the Sheet: undefined until it and its book are there. `elsewhere` when it is not finance's to look at. */
export function useFinanceClaim(number: string) {
  const { data, error, mutate } = useClaim(number);
  const finance = data && isFinance(data) ? data : null;
  const book = useBook(finance?.bookHash ?? null);
  const whole = useMemo((): ClaimView | undefined => {
    if (!finance || !book.data) return undefined;
    const { own, ...rest } = finance.document;
    return { ...finance, document: { format: 'ebbet-case/1', ...rest, book: joinBook(book.data, own) } };
  }, [finance, book.data]);
  // while another part of the book is on its way, the claim stays as it was: nothing that is open on it closes
  const [shown, setShown] = useState(whole);
  if (whole && whole !== shown) setShown(whole);
  const view = whole ?? (finance && shown?.claim.number === number ? shown : undefined);
  return { view, elsewhere: data !== undefined && finance === null, error: error ?? book.error, mutate };
}

/** The journal a claim would be posted with on a date; nothing is asked while the date is null. */
export const usePostingPreview = (number: string, date: string | null) =>
  useSWR(date === null ? null : `${pathOf(number)}/journal?date=${date}`, getter(journalPreview), {
    revalidateOnFocus: false,
    keepPreviousData: true,
  });

export type PlainAct =
  | 'withdraw'
  | 'callBack'
  | 'bringBack'
  | 'sendQueries'
  | 'approve'
  | 'takeBack'
  | 'agreeCode'
  | 'clear'
  | 'reopen'
  | 'release';
export type ReasonedAct = 'return' | 'returnToApprover' | 'decline' | 'refuseCode';
export interface MarkRequest {
  revision: number;
  line: string;
  kind: TieKind;
  mark: 'seen' | 'waived' | 'none';
  about?: string;
  reason?: string;
  /** Other lines where the same is said, each with what was seen there. */
  also?: { line: string; about?: string }[];
}

export interface AskRequest {
  revision: number;
  line: string;
  kind: TieKind | null;
  text: string;
  asks: 'claimant' | 'approver';
}

/** The acts on a claim; each answers with the claim as it is afterwards. */
export function claimActs(number: string) {
  const path = pathOf(number);
  const post = (name: string, body: unknown) => act(`${path}/${name}`, claimAnswer, body);
  return {
    correct: (revision: number, corrections: LineCorrection[]) =>
      send('PUT', `${path}/lines`, claimAnswer, { revision, corrections }),
    mark: (body: MarkRequest) => post('marks', body),
    ask: (body: AskRequest) => post('queries', body),
    dropQuery: (query: string, revision: number) =>
      send('DELETE', `${path}/queries/${query}?revision=${revision}`, claimAnswer),
    answer: (query: string, revision: number, text: string) =>
      send('PUT', `${path}/queries/${query}`, claimAnswer, { revision, text }),
    attachAnswer: (query: string, revision: number, file: File) =>
      upload(`${path}/queries/${query}/files?revision=${revision}`, claimAnswer, file, () => undefined),
    handIn: (act: 'submit' | 'resubmit', revision: number, accepted: string | undefined) =>
      post(act, { revision, accepted }),
    plain: (act: PlainAct, revision: number) => post(pathOfAct(act), { revision }),
    approve: (revision: number, comment: string) => post('approve', { revision, ...(comment ? { comment } : {}) }),
    returnWith: (revision: number, reason: string, lines: { line: string; text: string }[]) =>
      post('return', { revision, reason, lines }),
    reasoned: (act: ReasonedAct, revision: number, reason: string) => post(pathOfAct(act), { revision, reason }),
    declineLine: (line: string, revision: number, reason: string) => post('decline-line', { revision, line, reason }),
    restoreLine: (line: string, revision: number) => post('restore-line', { revision, line }),
    hold: (revision: number, said: { reason: string; told?: string; until: string }) =>
      post('hold', { revision, ...said }),
    post: (body: PostRequest) => send('POST', `${path}/post`, postedAnswer, body),
  };
}
export type ClaimActs = ReturnType<typeof claimActs>;
