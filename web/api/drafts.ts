import { claimAnswer, type ClaimAnswer } from '../../contract/claims.ts';
import {
  begunAnswer,
  type BeginDraft,
  type Explain,
  type HeaderEdit,
  type LineEdit,
  type LinesEdit,
  type NewLine,
} from '../../contract/drafts.ts';
import { send } from './client.ts';

export type { LineEdit, LinesEdit, NewLine } from '../../contract/drafts.ts';
export type LineSet = LineEdit['set'];
export type HeaderSet = HeaderEdit['set'];

const pathOf = (number: string, rest = ''): string => `/drafts/${encodeURIComponent(number)}${rest}`;
const lineOf = (line: string): string => `/lines/${encodeURIComponent(line)}`;

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
  answer: (number: string, revision: number, query: string, text: string): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, `/queries/${query}`), claimAnswer, { revision, text }),
  order: (number: string, revision: number, order: string[]): Promise<ClaimAnswer> =>
    send('PUT', pathOf(number, '/order'), claimAnswer, { revision, order }),
};
