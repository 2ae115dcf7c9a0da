import { TIE_KINDS, type TieKind } from '../../../core/evidence/comparisons/tie.types.ts';
import type { StandingFilter } from '../../../contract/desk.ts';

/** What the Desk is narrowed to: the address behind the question mark, so that a link shows the same. Missing: not narrowed. */
export interface Filter {
  state: string;
  q: string;
  entity: string;
  person: string;
  /** dimension:code, several with commas. */
  code: string;
  category: string;
  off: string;
  is: readonly StandingFilter[];
  min: string;
  max: string;
  older: string;
}
export const USUAL_STATE = 'in review';
const WORDS = ['q', 'entity', 'person', 'code', 'category', 'off', 'min', 'max', 'older'] as const;

export const SAY_STANDING: Record<StandingFilter, string> = {
  clean: 'nothing off',
  answered: 'answered',
  waiting: 'waiting for an answer',
  again: 'new version',
  held: 'on hold',
  overdue: 'hold is over',
  drawn: 'drawn for a full look',
  mine: 'mine',
};

/** The filter an address says. What no filter can be stays out. */
export function readFilter(params: URLSearchParams): Filter {
  const is = (params.get('is')?.split(',') ?? []).filter((name): name is StandingFilter => name in SAY_STANDING);
  const words = Object.fromEntries(WORDS.map((name) => [name, params.get(name) ?? '']));
  const off = TIE_KINDS.includes(params.get('off') as TieKind) ? params.get('off')! : '';
  return { ...(words as Omit<Filter, 'state' | 'is'>), off, state: params.get('state') ?? USUAL_STATE, is };
}

/** A filter as an address says it: only what narrows, in a fixed order. Example: nothing but the usual state → "". */
export function writeFilter(filter: Filter): string {
  const params = new URLSearchParams();
  if (filter.state !== USUAL_STATE) params.set('state', filter.state);
  for (const name of WORDS) if (filter[name].trim()) params.set(name, filter[name].trim());
  if (filter.is.length > 0) params.set('is', filter.is.join(','));
  return params.toString();
}

const FIGURE = /^\d{1,12}(\.\d{1,3})?$/;
const DAYS = /^\d{1,4}$/;

/** What the server is asked for: a number that is still being typed narrows nothing yet. Example: from "12." → not narrowed. */
export const askedBy = (filter: Filter): string =>
  writeFilter({
    ...filter,
    min: FIGURE.test(filter.min) ? filter.min : '',
    max: FIGURE.test(filter.max) ? filter.max : '',
    older: DAYS.test(filter.older) ? filter.older : '',
  });

/** How much narrows besides the state and the words that are looked for. */
export const narrowedBy = ({ is, q: _, state: __, ...rest }: Filter): number =>
  is.length + Object.values(rest).filter((value) => value.trim() !== '').length;
