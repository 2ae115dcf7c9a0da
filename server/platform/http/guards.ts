import type { Request, RequestHandler } from 'express';
import type { z } from 'zod';
import { toProblem } from '../../../core/documents/readCase.ts';
import { sayIssue } from '../../../core/documents/sayIssue.ts';
import type { Actor } from '../context.ts';
import { invalid, Refused } from './refusal.ts';
import { isStorable, textFault } from './textFault.ts';

declare module 'express-serve-static-core' {
  interface Request {
    actor?: Actor;
  }
}
declare module 'express-session' {
  interface SessionData {
    personId: string;
    /** When it began, ISO 8601, and what the browser called itself. */
    since: string;
    device: string;
    /** The secret that was offered for an authenticator and is not yet proved. */
    offered?: string;
  }
}

const LONGEST_PARAM = 300;
const READS = new Set(['GET', 'HEAD']);

/**
 * Refuses writes that another site made a browser send. Browsers say where a request comes from in Sec-Fetch-Site or
 * Origin; a program that sends neither has no cookie of a victim to abuse.
 */
export const sameOriginWrites: RequestHandler = (req, _res, next) => {
  if (READS.has(req.method)) return next();
  const site = req.get('sec-fetch-site');
  const origin = req.get('origin');
  const foreign =
    (site !== undefined && site !== 'same-origin' && site !== 'none')
    || (origin !== undefined && hostOf(origin) !== req.get('host'));
  next(foreign ? new Refused('other-site') : undefined);
};

function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}

/** The signed-in person of a request that has passed `signedIn`. */
export function actorOf(req: Request): Actor {
  if (!req.actor) throw new Refused('not-signed-in');
  return req.actor;
}

/** The body or query checked by a schema; what is wrong is said at its path. */
export function checked<T extends z.ZodType>(schema: T, value: unknown): z.infer<T> {
  const fault = textFault(value);
  if (fault) throw invalid(fault);
  const parsed = schema.safeParse(value, { error: sayIssue });
  if (parsed.success) return parsed.data;
  throw invalid(toProblem(parsed.error.issues[0]!));
}

/** The value of a path parameter. One that no text of the database can be finds nothing. */
export function param(req: Request, name: string): string {
  const value = req.params[name];
  const text = Array.isArray(value) ? value.join('/') : (value ?? '');
  if (!isStorable(text) || text.length > LONGEST_PARAM) throw new Refused('not-found', { what: 'such record' });
  return text;
}

/** The number of a page in a path; 0, which no page has, where it is none. */
export const pageIn = (req: Request): number => Number(/^\d{1,4}$/.exec(param(req, 'page'))?.[0] ?? 0);

/** A path parameter that is a record's number; anything else finds nothing. */
export function numberParam(req: Request, name: string, what: string): bigint {
  const text = param(req, name);
  if (!/^\d{1,18}$/.test(text)) throw new Refused('not-found', { what });
  return BigInt(text);
}
