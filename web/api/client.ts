import { mutate } from 'swr';
import type { z } from 'zod';
import { KEY_HEADER, PERSON_HEADER } from '../../contract/route.ts';
import { once } from './once.ts';

/** A no from the server, or a failure to reach it: a code, a sentence for the person, the numbers behind it. */
export class ApiError extends Error {
  readonly code: string;
  readonly status: number;
  readonly numbers: Record<string, unknown>;
  readonly reference: string | null;

  constructor(
    status: number,
    body: { code: string; says: string; numbers?: Record<string, unknown>; reference?: string },
  ) {
    super(body.says);
    this.code = body.code;
    this.status = status;
    this.numbers = body.numbers ?? {};
    this.reference = body.reference ?? null;
  }
}

type SignedOutListener = () => void;
const listeners = new Set<SignedOutListener>();

/** Told whenever the server says that the session has ended; returns how to stop listening. */
export function onSignedOut(listener: SignedOutListener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const backListeners = new Set<SignedOutListener>();
/** Told when somebody has signed in again; returns how to stop listening. */
export function onSignedIn(listener: SignedOutListener): () => void {
  backListeners.add(listener);
  return () => backListeners.delete(listener);
}
export const tellSignedIn = (): void => [...backListeners].forEach((tell) => tell());

export const UNREADABLE = {
  code: 'unreadable',
  says: 'The server gave no readable answer. Nothing was changed as far as we know; load the page again.',
};

/** Sends a request under /api; the answer as the contract describes it. Every failure is an ApiError. */
export function send<T extends z.ZodType>(
  method: string,
  path: string,
  schema: T,
  body?: unknown,
): Promise<z.infer<T>> {
  const text = body === undefined ? null : JSON.stringify(body);
  if (method === 'GET') return ask(method, path, schema, text);
  return once(`${method} ${path} ${text}`, (key) => ask(method, path, schema, text, { [KEY_HEADER]: key }));
}

/**
 * As `send`, without a key and not sent again: for what may happen as often as it is sent, and for passwords and codes, of which
 * nothing is remembered.
 */
export const say = <T extends z.ZodType>(
  method: string,
  path: string,
  schema: T,
  body?: unknown,
): Promise<z.infer<T>> => ask(method, path, schema, body === undefined ? null : JSON.stringify(body));

/** The person whose page this is: another one may have signed in meanwhile, in another tab of this browser. */
let person: string | null = null;
export const sendAs = (id: string): void => void (person = id);
/** Tells the server whose page sends, so that nothing is done as whoever else is signed in by now. */
export const personHeader = (path: string): Record<string, string> =>
  person === null || path === '/session' ? {} : { [PERSON_HEADER]: person };

async function ask<T extends z.ZodType>(
  method: string,
  path: string,
  schema: T,
  text: string | null,
  headers: Record<string, string> = {},
): Promise<z.infer<T>> {
  const type: Record<string, string> = text === null ? {} : { 'Content-Type': 'application/json' };
  const response = await reach(path, { method, headers: { ...headers, ...type }, body: text });
  const answer: unknown = response.status === 204 ? {} : await response.json().catch(() => null);
  return readAnswer(response.status, response.ok, answer, schema);
}

/** An answer read by its schema; what is a refusal, or does not fit, is thrown as an ApiError. */
export function readAnswer<T extends z.ZodType>(status: number, ok: boolean, answer: unknown, schema: T): z.infer<T> {
  if (ok) {
    const read = schema.safeParse(answer);
    if (read.success) return read.data;
    throw new ApiError(status, UNREADABLE);
  }
  const refusal = answer as { code?: string; says: string } | null;
  const error = new ApiError(status, refusal?.code ? { ...refusal, code: refusal.code } : UNREADABLE);
  if (error.code === 'not-signed-in') listeners.forEach((tell) => tell());
  throw error;
}

/** Whether the server answered last. */
let reachable = true;
const reachListeners = new Set<() => void>();
function reached(now: boolean): void {
  if (now === reachable) return;
  reachable = now;
  reachListeners.forEach((tell) => tell());
}
export const isReachable = (): boolean => reachable;
/** Told when the server begins or ceases to answer; returns how to stop listening. */
export function onReach(listener: () => void): () => void {
  reachListeners.add(listener);
  return () => reachListeners.delete(listener);
}

async function reach(path: string, init: RequestInit): Promise<Response> {
  try {
    const headers = { ...init.headers, ...personHeader(path) };
    const response = await fetch(`/api${path}`, { ...init, headers, credentials: 'same-origin' });
    reached(true);
    return response;
  } catch {
    reached(false);
    throw new ApiError(0, {
      code: 'unreachable',
      says: 'The server cannot be reached. What you typed is kept; try again when the connection is back. It is done once, however often it is sent.',
    });
  }
}

/** What every act on a record may change: each is asked for again when it is next shown. */
const WAITING = ['/approvals', '/advances'];

/** As `send`, for an act on a record; afterwards other things may wait for somebody. */
export async function act<T extends z.ZodType>(path: string, schema: T, body: unknown): Promise<z.infer<T>> {
  const answer = await send('POST', path, schema, body);
  for (const list of WAITING) void mutate(list);
  return answer;
}

/** How SWR fetches an address: by the schema of its answer. */
export const getter =
  <T extends z.ZodType>(schema: T) =>
  (path: string): Promise<z.infer<T>> =>
    send('GET', path, schema);
