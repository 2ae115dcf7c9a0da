import { mutate } from 'swr';
import type { z } from 'zod';

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

export const UNREADABLE = {
  code: 'unreadable',
  says: 'The server gave no readable answer. Nothing was changed as far as we know; load the page again.',
};

/** Sends a request under /api; the answer as the contract describes it. Every failure is an ApiError. */
export async function send<T extends z.ZodType>(
  method: string,
  path: string,
  schema: T,
  body?: unknown,
): Promise<z.infer<T>> {
  const response = await reach(path, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    body: body === undefined ? null : JSON.stringify(body),
  });
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

async function reach(path: string, init: RequestInit): Promise<Response> {
  try {
    return await fetch(`/api${path}`, { ...init, credentials: 'same-origin' });
  } catch {
    throw new ApiError(0, {
      code: 'unreachable',
      says: 'The server cannot be reached. What you typed is kept; try again when the connection is back.',
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

/** A key that makes an act happen once, however often its request is sent. */
export const newKey = (): string => crypto.randomUUID();
