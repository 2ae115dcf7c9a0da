import type { z } from 'zod';
import type { ActRule, Lifecycle, Role } from '../core/workflow/lifecycle.types.ts';
import { seenQuery } from './primitives.ts';

/**
 * The key by which a request that is sent again is told from a new one, as the IETF's draft "The Idempotency-Key HTTP Header
 * Field" names it; and whose page sends it: as whoever else is signed in by then, nothing is done.
 */
export const KEY_HEADER = 'Idempotency-Key';
export const PERSON_HEADER = 'Ebbet-Person';

/** Who gathers receipts and charges. */
export const GATHERERS: readonly Role[] = ['claimant', 'preparer'];

/** Everybody, whoever signed in or acts by a token, only a person who signed in, or who holds one of some roles. */
export type Who = 'anybody' | 'signed in' | 'in person' | readonly Role[];

/** An act of a lifecycle as an address does it: who may try it, and what is judged where the record is locked. */
interface Doing {
  who: Who;
  does: { kind: string; act: string; rule: ActRule<string> };
}
/** Who may try: holders of a role that some way of the act needs; everybody where a relation alone opens one. */
export function whoMay<A extends string>({ kind, acts }: Lifecycle<string, A>, act: A): Doing {
  const rule: ActRule<string> = acts[act];
  const open = rule.ways.some((w) => w.roles.length === 0);
  const who = open ? 'signed in' : [...new Set(rule.ways.flatMap((w) => w.roles))];
  return { who, does: { kind, act, rule } };
}

/** How an act stands in an address. Example: takeBack → "take-back". */
export const pathOfAct = (name: string): string => name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

/** One address of the server: what it takes and what it answers. `answer: null` is a file or a stream, named by its type. */
export interface RouteContract {
  method: 'get' | 'post' | 'put' | 'delete';
  path: string;
  /** Who passes; relations to the record are judged where it is locked. */
  who: Who;
  /** The act that is done there, where it is one on a single record. */
  does?: Doing['does'];
  says: string;
  query?: z.ZodType;
  body?: z.ZodType | 'file';
  answer: z.ZodType | null;
  type?: string;
  status?: number;
  /** What must not happen twice by a sender's oversight: without a key it is refused. */
  needsKey?: true;
}

type Rest = Omit<RouteContract, 'method' | 'path' | 'who' | 'does' | 'says' | 'answer'>;
export const route = (
  method: RouteContract['method'],
  path: string,
  who: Who | Doing,
  says: string,
  answer: z.ZodType | null,
  rest: Rest = {},
): RouteContract => ({ method, path, ...(isDoing(who) ? who : { who }), says, answer, ...rest });
const isDoing = (who: Who | Doing): who is Doing => typeof who === 'object' && 'does' in who;

/** Addresses that do acts of one kind of record and answer with the record as it is afterwards. */
export const doing = <A extends string>(lifecycle: Lifecycle<string, A>, answer: z.ZodType) => ({
  act: (method: 'put' | 'post', path: string, name: A, says: string, body: z.ZodType): RouteContract =>
    route(method, path, whoMay(lifecycle, name), says, answer, { body }),
  /** Adds a file; the revision that was seen stands in the query. */
  file: (path: string, name: A, says: string): RouteContract =>
    route('post', path, whoMay(lifecycle, name), says, answer, { query: seenQuery, body: 'file', status: 201 }),
  /** Takes something off. */
  off: (path: string, name: A, says: string): RouteContract =>
    route('delete', path, whoMay(lifecycle, name), says, answer, { query: seenQuery }),
});
