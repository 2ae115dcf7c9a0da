import useSWR from 'swr';
import useSWRInfinite from 'swr/infinite';
import {
  columnsAnswer,
  entitiesAnswer,
  hereAnswer,
  nextAnswer,
  queueAnswer,
  viewsAnswer,
  type DeskColumn,
  type QueueAnswer,
  type SaveView,
} from '../../contract/desk.ts';
import { getter, say, send } from './client.ts';

export type { DeskView, QueueRow } from '../../contract/desk.ts';

/** Claims finance goes through, page by page, narrowed as a query string says; null asks for nothing. */
export function useQueue(query: string | null) {
  const pathOf = (after: string | null) => {
    const asked = new URLSearchParams(query ?? '');
    if (after) asked.set('after', after);
    return `/claims?${asked}`;
  };
  return useSWRInfinite(
    (index, before: QueueAnswer | null) =>
      query === null || (index > 0 && !before?.next) ? null : pathOf(before?.next ?? null),
    getter(queueAnswer),
    { keepPreviousData: true },
  );
}

export const useEntities = () => useSWR('/desk/entities', getter(entitiesAnswer), { revalidateOnFocus: false });
export const useViews = () => useSWR('/desk/views', getter(viewsAnswer), { revalidateOnFocus: false });

export const useColumns = () => useSWR('/desk/columns', getter(columnsAnswer), { revalidateOnFocus: false });
export const keepColumns = (columns: readonly DeskColumn[]) => send('PUT', '/desk/columns', columnsAnswer, { columns });

export const views = {
  save: (view: SaveView) => send('POST', '/desk/views', viewsAnswer, view),
  remove: (id: string) => send('DELETE', `/desk/views/${id}`, viewsAnswer),
};

const hereOf = (number: string): string => `/claims/${encodeURIComponent(number)}/here`;
export const here = {
  say: (number: string) => say('POST', hereOf(number), hereAnswer),
  next: (numbers: string[]) => send('POST', '/desk/next', nextAnswer, { numbers }),
  leave: (number: string) => say('DELETE', hereOf(number), hereAnswer),
};
