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

/** Sends a request under /api and gives the JSON answered; every failure is an ApiError. */
export async function send<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await reach(path, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    body: body === undefined ? null : JSON.stringify(body),
  });
  if (response.status === 204) return undefined as T;
  const answer = await response.json().catch(() => null);
  if (response.ok && answer !== null) return answer as T;
  const error = new ApiError(
    response.status,
    answer?.code
      ? answer
      : {
          code: 'unreadable',
          says: 'The server gave no readable answer. Nothing was changed as far as we know; load the page again.',
        },
  );
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

export const get = <T>(path: string): Promise<T> => send<T>('GET', path);

/** A key that makes an act happen once, however often its request is sent. */
export const newKey = (): string => crypto.randomUUID();
