import { createHash } from 'node:crypto';
import type { z } from 'zod';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SETUP_KINDS, SETUP_ROWS } from '../../contract/setup.ts';
import { limitSchema } from '../../core/documents/rules.schema.ts';
import type { RouteContract } from '../../contract/route.ts';
import { ROUTES } from '../../contract/routes.ts';
import { cookiesOf, startApi, type TestApi } from '../fixtures/startApi.ts';
import { NASTY, NASTY_PARTS, pathsOf, sampleOf, withAt } from './nasty.ts';

/** Somebody who holds every role, so that no request is turned away before it is looked at. */
let api: TestApi;
let cookie = '';
let tried = 0;
const HOLDS = ['claimant', 'preparer', 'approver', 'reviewer', 'controller', 'auditor', 'administrator'];
beforeAll(async () => {
  api = await startApi('fuzz', { mailer: { send: async () => {} } });
  const { id } = await api.owner('people').where({ email: 'tomas.brandao@saltmarsh.example' }).first();
  await api.owner('person_roles').where({ person_id: id }).delete();
  await api.owner('person_roles').insert(HOLDS.map((role) => ({ person_id: id, role })));
  const body = JSON.stringify({ email: 'tomas.brandao@saltmarsh.example', password: 'saltmarsh' });
  const headers = { 'content-type': 'application/json' };
  const signedIn = await fetch(`${api.url}/api/session`, { method: 'POST', headers, body });
  cookie = cookiesOf(signedIn);
  const own = await fetch(`${api.url}/api/claims/own`, { headers: { cookie } });
  if (!own.ok) throw new Error('nobody is signed in, so nothing would be tried');
});
afterAll(async () => {
  process.stdout.write(`${tried} hostile requests tried, of day ${(TODAY % THIRDS) + 1} of ${THIRDS}\n`);
  await api.close();
});

/** What is there, in a word: any act that was done changes it. */
async function state(): Promise<string> {
  const { rows } = await api.owner.raw(`
    select (select count(*) from events) || ' ' || (select coalesce(sum(revision), 0) from claims) || ' '
      || (select count(*) from lines) || ' ' || (select count(*) from receipts)
      as word`);
  return rows[0].word;
}

interface Tried {
  status: number;
  code: string;
  says: string;
  numbers: { path?: string };
}
async function send(route: RouteContract, path: string, body?: unknown): Promise<Tried> {
  tried += 1;
  const text = body === undefined ? undefined : JSON.stringify(body);
  const response = await fetch(`${api.url}/api${path}`, {
    method: route.method.toUpperCase(),
    headers: {
      'idempotency-key': crypto.randomUUID(),
      cookie,
      ...(text === undefined ? {} : { 'content-type': 'application/json' }),
    },
    ...(text === undefined ? {} : { body: text }),
    redirect: 'manual',
  });
  const answered = await response.text();
  const { code = '', says = '', numbers = {} } = response.ok ? {} : (JSON.parse(answered) as Partial<Tried>);
  return { status: response.status, code, says, numbers };
}

interface Try {
  route: RouteContract;
  path: string;
  body?: unknown;
  /** The field that is hostile; the refusal has to name it. */
  field?: string | number | undefined;
  /** Which field is what, for the person who reads of a fault. */
  what: string;
  /** Whether the revision of the claim is put in, so that the request is not stale. */
  fresh?: boolean;
}

/** What was there after the last request, where that was refused; looking takes as long as asking. */
let known: string | null = null;

/** What is wrong with an answer: broken, without a sentence, or refused though something changed. */
async function faultOf({ route, path, body, field, fresh = false }: Try): Promise<string | null> {
  const before = (known ??= await state());
  if (fresh && typeof body === 'object' && body !== null && 'revision' in body) body.revision = await revisionOf(path);
  const { status, code, says, numbers } = await send(route, path, body);
  if (status < 400 || status >= 500) known = null;
  if (status >= 500) return `${status} ${code}`;
  if (status < 400) return null;
  if (!/[.!?]$/.test(says)) return `no sentence: ${says}`;
  if (code === 'invalid' && field !== undefined && !namesField(numbers.path, field))
    return `names ${numbers.path || 'no field'}`;
  known = await state();
  return known === before ? null : `${code} changed something`;
}

/** A field of the request, or of the claim that would come of it. */
const namesField = (path = '', field: string | number): boolean =>
  path.split(/[.[]/)[0] === String(field) || path.startsWith('claim.');

/** A third of all, another one each day; all of them where FUZZ says so. In three days everything was tried. */
const THIRDS = 3;
const TODAY = Math.floor(Date.now() / 86_400_000);
const isOfToday = ({ path, what }: Try): boolean =>
  process.env.FUZZ === 'all' || (hashOf(`${path} ${what}`) + TODAY) % THIRDS === 0;
const hashOf = (text: string): number => createHash('sha256').update(text).digest().readUInt32BE(0);

/** Tries each and names those that did not hold. */
async function unheld(tries: Iterable<Try>) {
  const found: string[] = [];
  for (const one of tries) {
    if (!isOfToday(one)) continue;
    const fault = await faultOf(one);
    if (fault) found.push(`${one.route.method} ${one.path.slice(0, 100)} ${one.what}: ${fault}`);
  }
  return found;
}

/** Of each kind of record one that is there, so that a request gets as far as it can. */
const PARAMS: Record<string, string> = {
  number: 'C-1002',
  line: '1',
  id: '1',
  card: '4433',
  month: '2026-11',
  entity: 'IE',
  kind: 'budgets',
  key: 'IE',
  hash: 'a'.repeat(64),
  page: '1',
};
const OWN_DRAFT = 'C-1031';
const filled = (path: string, put: Record<string, string> = {}) =>
  path.replace(
    /:(\w+)/g,
    (_, name: string) => put[name] ?? (name === 'number' && path.startsWith('/drafts') ? OWN_DRAFT : PARAMS[name]!),
  );
/** The revision that the claim of a path has now. */
async function revisionOf(path: string): Promise<number> {
  const number = /C-\d+/.exec(path)?.[0] ?? '';
  const claim = await api.owner('claims').where({ number }).first();
  return claim?.revision ?? 1;
}
const routes = ROUTES.filter((r) => !(r.method === 'delete' && r.path === '/session'));

const bodies = routes.filter((r) => r.body && r.body !== 'file');
const short = (value: unknown) => String(JSON.stringify(value)).slice(0, 40);

const { id: _, ...LIMIT } = sampleOf(limitSchema) as { id: string };
/**
 * What each route takes, with the address it takes it at, and which field alone is tried there; a row of master data is
 * another body for each kind.
 */
function* goodBodies() {
  for (const route of bodies) {
    const good = sampleOf(route.body as z.ZodType);
    if (route.path !== '/setup/:kind') yield { route, path: filled(route.path), good, within: null };
    else
      for (const kind of SETUP_KINDS) {
        const row = kind === 'limits' ? { id: 'x', rule: LIMIT } : sampleOf(SETUP_ROWS[kind]);
        yield {
          route,
          path: filled(route.path, { kind }),
          good: { ...(good as object), row },
          within: kind === SETUP_KINDS[0] ? null : 'row',
        };
      }
  }
}
function* inBodies() {
  for (const { route, path, good, within } of goodBodies()) {
    for (const at of pathsOf(good).filter(([first]) => within === null || first === within))
      for (const bad of NASTY)
        yield {
          route,
          path,
          body: withAt(good, at, bad),
          what: `${at.join('.')} = ${short(bad)}`,
          field: at[0],
          fresh: at[0] !== 'revision',
        };
  }
}
function* inQueries() {
  for (const route of routes)
    for (const field of Object.keys(route.query ? (sampleOf(route.query) as object) : {}))
      for (const bad of [...NASTY_PARTS, `1&${field}=2`, `&${field}[a]=1`])
        yield { route, path: `${filled(route.path)}?${field}=${bad}`, field, what: field };
}
function* inAddresses() {
  for (const route of routes) {
    const body = route.body && route.body !== 'file' ? sampleOf(route.body) : undefined;
    for (const [, name] of route.path.matchAll(/:(\w+)/g))
      for (const bad of NASTY_PARTS) yield { route, path: filled(route.path, { [name!]: bad }), body, what: name! };
  }
}

describe('whatever is sent', () => {
  it('in any field of any body is answered, and what is refused changes nothing', async () => {
    expect(await unheld(inBodies())).toEqual([]);
  }, 1_800_000);
  it('in any query is answered', async () => {
    expect(await unheld(inQueries())).toEqual([]);
  });
  it('in any part of any address is answered', async () => {
    expect(await unheld(inAddresses())).toEqual([]);
  });
});
