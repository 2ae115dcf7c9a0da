import useSWR from 'swr';
import { claimAnswer, type ClaimAnswer } from '../../contract/claims.ts';
import {
  beginningsAnswer,
  begunAnswer,
  type BeginDraft,
  type Explain,
  type HeaderEdit,
  type LineEdit,
  type LinesEdit,
  type DealRecurring,
  type DivideLine,
  type NewLine,
  type Repeat,
  recurringAnswer,
} from '../../contract/drafts.ts';
import { getter, send } from './client.ts';
import { upload } from './upload.ts';

export type {
  Beginnings,
  DivideLine,
  RecurringLines,
  Repeat,
  LineEdit,
  LinesEdit,
  NewLine,
} from '../../contract/drafts.ts';
export type LineSet = LineEdit['set'];
export type HeaderSet = HeaderEdit['set'];

const pathOf = (number: string, rest = ''): string => `/drafts/${encodeURIComponent(number)}${rest}`;
const lineOf = (line: string): string => `/lines/${encodeURIComponent(line)}`;

/** With what a claim of a person can be begun; nothing is asked while nobody is chosen. */
export const useBeginnings = (claimant: string) =>
  useSWR(claimant ? `/drafts/beginnings?${new URLSearchParams({ claimant })}` : null, getter(beginningsAnswer));

/** Lines that come again for the claimant of a claim in preparation. */
export const useRecurring = (number: string) => useSWR(pathOf(number, '/recurring'), getter(recurringAnswer));

/** What is done with a claim in preparation; each answers with the claim as it is afterwards. */
export const drafts = {
  begin: (header: BeginDraft) => send('POST', '/drafts', begunAnswer, header),
  header: (number: string, revision: number, set: HeaderSet): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number), claimAnswer, { revision, set }),
  write: (number: string, revision: number, lines: NewLine[]): Promise<ClaimAnswer> =>
    send('POST', pathOf(number, '/lines'), claimAnswer, { revision, lines }),
  edit: (number: string, revision: number, line: string, set: LineSet): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, lineOf(line)), claimAnswer, { revision, set }),
  editSeveral: (number: string, revision: number, change: LinesEdit): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, '/lines'), claimAnswer, { revision, ...change }),
  remove: (number: string, revision: number, line: string): Promise<ClaimAnswer> =>
    send('DELETE', `${pathOf(number, lineOf(line))}?revision=${revision}`, claimAnswer),
  explain: (number: string, revision: number, said: Explain): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, '/explanations'), claimAnswer, { revision, ...said }),
  attach: (number: string, revision: number, file: File): Promise<ClaimAnswer> =>
    upload(pathOf(number, `/attachments?revision=${revision}`), claimAnswer, file, () => undefined),
  detach: (number: string, revision: number, id: string): Promise<ClaimAnswer> =>
    send('DELETE', pathOf(number, `/attachments/${id}?revision=${revision}`), claimAnswer),
  putReceipt: (number: string, revision: number, line: string, receipt: string): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, `${lineOf(line)}/receipt`), claimAnswer, { revision, receipt }),
  divide: (number: string, revision: number, line: string, parts: DivideLine['parts']): Promise<ClaimAnswer> =>
    send('POST', pathOf(number, `${lineOf(line)}/parts`), claimAnswer, { revision, parts }),
  repeat: (number: string, revision: number, line: string, repeat: Repeat): Promise<ClaimAnswer> =>
    send('POST', pathOf(number, `${lineOf(line)}/repeat`), claimAnswer, { revision, ...repeat }),
  deal: (number: string, revision: number, id: string, deal: DealRecurring): Promise<ClaimAnswer> =>
    send('POST', pathOf(number, `/recurring/${id}`), claimAnswer, { revision, ...deal }),
  endRecurring: (number: string, revision: number, id: string): Promise<ClaimAnswer> =>
    send('DELETE', `${pathOf(number, `/recurring/${id}`)}?revision=${revision}`, claimAnswer),
  answer: (number: string, revision: number, query: string, text: string): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, `/queries/${query}`), claimAnswer, { revision, text }),
  order: (number: string, revision: number, order: string[]): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, '/order'), claimAnswer, { revision, order }),
};
