import type { Box } from '../../core/evidence/reading/reading.types.ts';
import useSWR from 'swr';
import type { z } from 'zod';
import {
  cardsAnswer,
  chargesAnswer,
  madeAnswer,
  monthAnswer,
  pairsAnswer,
  receiptsAnswer,
  takenAnswer,
  type Confirmation,
  type pairSchema,
  type takeSchema,
} from '../../contract/gather.ts';
import { nothing } from '../../contract/primitives.ts';
import { statementsAnswer, takenBackAnswer } from '../../contract/statements.ts';
import { getter, send } from './client.ts';

export type {
  Added,
  CardView,
  Charge,
  Confirmed,
  GatheredReceipt,
  LooseReceipt,
  MonthView,
  Page,
  PairLine,
  PairsView,
} from '../../contract/gather.ts';
export type { FileAnswer, Mapping, Outcome, StatementRow } from '../../contract/statements.ts';
export type ReceiptsView = z.infer<typeof receiptsAnswer>;
export type ChargesView = z.infer<typeof chargesAnswer>;
export type StatementsView = z.infer<typeof statementsAnswer>;
export type TakeRequest = z.input<typeof takeSchema>;
export type PairWish = z.input<typeof pairSchema>['pairs'][number];

const LOOK_AGAIN_MS = 1500;
/** A person's receipts, where they are wanted; asked for again while some are still being read. */
export const useReceipts = (wanted = true) =>
  useSWR(wanted ? '/receipts' : null, getter(receiptsAnswer), {
    refreshInterval: (data) => (data?.receipts.some((r) => r.state === 'waiting') ? LOOK_AGAIN_MS : 0),
  });
export const useGoneReceipts = () => useSWR('/receipts?of=gone', getter(receiptsAnswer));
export const useCharges = () => useSWR('/charges', getter(chargesAnswer));
export const usePairs = () => useSWR('/pairs', getter(pairsAnswer), { revalidateOnFocus: false });
export const useCards = () => useSWR('/cards', getter(cardsAnswer));
export const useMonth = (card: string, month: string) => useSWR(`/cards/${card}/months/${month}`, getter(monthAnswer));
export const useStatements = (again: boolean) =>
  useSWR('/statements', getter(statementsAnswer), { refreshInterval: again ? LOOK_AGAIN_MS : 0 });

/** Something as it was seen, so that an act on it can name the revision. */
interface Seen {
  id: string;
  revision: number;
}

/** By pages, or by places on a picture. */
export type Division = { by: 'pages'; parts: number[][] } | { by: 'places'; places: Box[] };

export const gather = {
  confirm: (id: string, facts: Confirmation) => send('PUT', `/receipts/${id}`, receiptsAnswer, facts),
  readAgain: ({ id, revision }: Seen) => send('POST', `/receipts/${id}/read`, receiptsAnswer, { revision }),
  remove: ({ id, revision }: Seen) => send('DELETE', `/receipts/${id}?revision=${revision}`, receiptsAnswer),
  combine: (receipts: readonly Seen[]) =>
    send('POST', '/receipts/combine', madeAnswer, { receipts: receipts.map(({ id, revision }) => ({ id, revision })) }),
  divide: ({ id, revision }: Seen, division: Division) =>
    send('POST', `/receipts/${id}/divide`, madeAnswer, { revision, ...division }),
  turn: ({ id, revision }: Seen, page: number, turns: number) =>
    send('PUT', `/receipts/${id}/pages/${page}/turn`, receiptsAnswer, { revision, turns }),
  bringBack: (id: string) => send('POST', `/receipts/${id}/back`, receiptsAnswer),
  markCharge: ({ id, revision }: Seen, reason: string | null) =>
    send('PUT', `/charges/${id}/mark`, chargesAnswer, { revision, reason }),
  take: (request: TakeRequest) => send('POST', '/drafts/lines', takenAnswer, request),
  pair: (revisions: Record<string, number>, pairs: PairWish[]) =>
    send('POST', '/pairs', pairsAnswer, { revisions, pairs }),
  unpair: (revisions: Record<string, number>, lines: PairWish['lines'], what: 'charge' | 'receipt') =>
    send('POST', '/pairs/undo', pairsAnswer, { revisions, lines, what }),
  fetchFeed: () => send('POST', '/feed', nothing),
  takeImportBack: (id: string) => send('POST', `/statements/${id}/taken-back`, takenBackAnswer),
  closeMonth: (card: string, month: string, revision: number) =>
    send('PUT', `/cards/${card}/months/${month}/closed`, monthAnswer, { revision }),
  reopenMonth: (card: string, month: string, revision: number) =>
    send('DELETE', `/cards/${card}/months/${month}/closed?revision=${revision}`, monthAnswer),
};
