import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RouteContract } from '../../../contract/route.ts';
import { ROUTES } from '../../../contract/routes.ts';
import { FINANCE, ROLES } from '../../../core/workflow/lifecycle.types.ts';
import { CLAIM_STATES, type ClaimState } from '../../../core/workflow/lifecycles/claim.ts';
import { audienceFor, VIEWERS, type Viewer } from '../../../core/workflow/viewers.ts';
import { sampleOf } from '../../../test/faults/nasty.ts';
import { picture, sendFile } from '../../../test/fixtures/sendFile.ts';
import { startApi, type Answer, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';

/** One person, who is made what they are to a claim before each try. */
let api: TestApi;
let person: Client;
let tried = 0;
const ID = 'T-relations';
const OTHERS = { claimant_id: 'P05', preparer_id: 'P05', cleared_by: 'P02' };
const COLUMN: Record<string, keyof typeof OTHERS> = {
  claimant: 'claimant_id',
  preparer: 'preparer_id',
  clearer: 'cleared_by',
};
beforeAll(async () => {
  api = await startApi('relations');
  const { rows } = await api.owner.raw('select password_hash as hash from credentials limit 1');
  const row = { id: ID, name: 'Tried', email: 'tried@saltmarsh.example', kind: 'employee', entity_id: 'IE' };
  await api.owner('people').insert({ ...row, currency: 'EUR' });
  await api.owner('credentials').insert({ person_id: ID, password_hash: rows[0].hash });
  person = await api.as('tried');
});
afterAll(async () => {
  process.stdout.write(`${tried} pairs of an address and a relation tried\n`);
  await api.close();
});

async function hold(roles: readonly string[]): Promise<void> {
  await api.owner('person_roles').where({ person_id: ID }).delete();
  await api.owner('person_roles').insert(roles.map((role) => ({ person_id: ID, role })));
}

/** A claim of the demo that was in a state or becomes as if it was, and what the person is to it. */
const NUMBER = 'C-1002';
async function put(state: ClaimState, relation: string | null): Promise<void> {
  const cleared = !['draft', 'with approver', 'in review', 'returned', 'declined', 'withdrawn'].includes(state);
  const column = relation === null ? undefined : COLUMN[relation];
  const people = { ...OTHERS, ...(column ? { [column]: ID } : {}), ...routed(relation) };
  const clearer = cleared || relation === 'clearer' ? people.cleared_by : null;
  const submitted = state === 'draft' ? { submitted_version: null, submitted_on: null } : SUBMITTED;
  await api
    .owner('claims')
    .where({ number: NUMBER })
    .update({ ...people, ...submitted, cleared_by: clearer, state });
}
/** Who decides, who decided last and who is asked about codes: this person in one of these, somebody else in the others. */
const routed = (relation: string | null) => ({
  deciders: [relation === 'approver' ? ID : 'P03'],
  approvers: [relation === 'decider' ? ID : 'P03'],
  code_owners: [relation === 'owner' ? ID : 'P03'],
  questioned: [relation === 'questioned' ? ID : 'P03'],
  decided_by: relation === 'decider' ? ID : 'P03',
  decided_in: api.owner.ref('revision'),
});
const SUBMITTED = { submitted_version: 1, submitted_on: '2026-11-02' };

const acts = ROUTES.filter((r) => r.does?.kind === 'claim' && r.path.includes(':number') && r.does.act !== 'reverse');
const pathOf = ({ path, query }: RouteContract) => {
  const asked = query
    ? new URLSearchParams(withStale(sampleOf(query)) as object as Record<string, string>).toString()
    : '';
  return `${path.replace(':number', NUMBER).replace(':line', '1').replace(':query', '1').replace(':id', '1')}?${asked}`;
};
/** A revision nobody has seen: what may be done is answered as stale, and nothing is done. */
const withStale = (sample: unknown) => ({ ...(sample as object), revision: 999_999 });

async function send(route: RouteContract): Promise<Answer> {
  if (route.body === 'file') return sendFile(person, pathOf(route), await picture());
  const body = route.body ? withStale(sampleOf(route.body)) : undefined;
  return person.send(route.method.toUpperCase(), pathOf(route), body);
}

describe('an act on a claim', () => {
  it.each(acts.map((route) => [`${route.method} ${route.path}`, route] as const))(
    'is done by who is what it needs to the claim, and not what it forbids: %s',
    async (_name, route) => {
      await hold(ROLES);
      const { rule } = route.does!;
      const state = rule.ways.flatMap((w) => w.from ?? [])[0] as ClaimState;
      const found: Record<string, string> = {};
      const expected: Record<string, string> = {};
      for (const relation of [null, 'claimant', 'preparer', 'approver', 'decider', 'owner', 'questioned', 'clearer']) {
        await put(state, relation);
        tried += 1;
        found[relation ?? 'nobody'] = (await send(route)).body.code;
        expected[relation ?? 'nobody'] = refusalFor(route, relation, state);
      }
      expect(found).toEqual(expected);
    },
  );
});

/** What the table says of somebody who holds every role and is one thing to a claim. */
function refusalFor({ does }: RouteContract, relation: string | null, state: ClaimState): string {
  const { rule } = does!;
  const none = state === 'draft' && relation !== 'claimant' && relation !== 'preparer';
  if (none) return 'not-found';
  if (rule.never.some((r) => r === relation)) return 'own-record';
  if (rule.ways.every((w) => w.as.length > 0 && !w.as.some((r) => r === relation))) return 'not-yours';
  return rule.apart?.relation === relation ? 'kept-apart' : 'stale';
}

describe('a claim', () => {
  it.each(VIEWERS.map((viewer) => [viewer.name, viewer] as const))(
    'is seen in each state by who may, with its receipts: %s',
    async (_name, viewer) => {
      await hold(viewer.roles);
      const { id } = await api
        .owner('lines as l')
        .join('claims as c', 'c.id', 'l.claim_id')
        .where('c.number', NUMBER)
        .whereNotNull('l.receipt_id')
        .first('l.receipt_id as id');
      for (const state of CLAIM_STATES) {
        await put(state, viewer.relation);
        tried += 3;
        const claim = await person.get(`/claims/${NUMBER}`);
        expect([state, claim.body.audience ?? null]).toEqual([state, audienceFor(viewer, state)]);
        const seesPaper = (await person.get(`/receipts/${id}/pages/1`)).status;
        expect([state, seesPaper]).toEqual([state, audienceFor(viewer, state) ? 200 : 404]);
        const journal = await person.get(`/claims/${NUMBER}/journal?date=2026-11-26`);
        const told = journal.status === 403 || journal.status === 404 ? journal.status : 'told';
        expect([state, told]).toEqual([state, journalFor(viewer, state)]);
      }
    },
  );
});

/** The journal a claim would have is for finance and auditors; what else there is to say of it they are told. */
function journalFor(viewer: Viewer, state: ClaimState): number | 'told' {
  if (!viewer.roles.some((r) => FINANCE.includes(r))) return 403;
  const audience = audienceFor(viewer, state);
  return audience === 'finance' || audience === 'auditor' ? 'told' : 404;
}
