import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { ADVANCE_ROUTES } from '../../../contract/advanceRoutes.ts';
import { audienceOf } from '../../../core/workflow/audienceOf.ts';
import { judgeAct } from '../../../core/workflow/judgeAct.ts';
import { advanceLifecycle, ADVANCE_STATES, type AdvanceAct } from '../../../core/workflow/lifecycles/advance.ts';
import { ROLES } from '../../../core/workflow/lifecycle.types.ts';
import { advanceFacts } from '../../records/advances/advanceStore.ts';
import { advanceActs, DAY } from '../../../test/fixtures/advances.ts';
import { startApi, type Client, type TestApi } from '../../../test/fixtures/startApi.ts';
import { sampleOf } from '../../../test/faults/nasty.ts';
import { actorWith } from '../../platform/context.ts';

/** Every act on an advance, in every state, by somebody who is, or is not, what it needs: the server says what the table says. */
let api: TestApi;
let number = '';
const people: { name: string; id: string; client: Client; standsFor: string[] }[] = [];
beforeAll(async () => {
  api = await startApi('advance_relations');
  const { asked } = await advanceActs(api);
  number = await asked();
  await api.owner('substitutes').insert({ person_id: 'P09', substitute_id: 'P07', valid_from: DAY, valid_to: DAY });
  for (const [name, mail] of [
    ['its claimant', 'tomas.brandao'],
    ['who decides', 'siobhan.odowd'],
    ['the substitute', 'ren.isshiki'],
    ['an approver elsewhere', 'aoi.kuramochi'],
    ['a reviewer', 'maeve.tarrant'],
    ['a controller', 'odd.fjellheim'],
    ['a preparer', 'hedda.vestergaard'],
    ['an administrator', 'leilani.kahue'],
  ] as const) {
    const { id } = await api
      .owner('people')
      .where({ email: `${mail}@saltmarsh.example` })
      .first('id');
    people.push({ name, id, client: await api.as(mail), standsFor: id === 'P07' ? ['P09'] : [] });
  }
});
afterAll(() => api.close());

const acts = ADVANCE_ROUTES.filter((r) => r.does && r.path.includes(':number') && r.body !== 'file' && !r.query);
const pathOf = (path: string) => path.replace(':number', number);

async function codesOf(person: (typeof people)[number]) {
  const row = await api.owner('advances').where({ id: number }).first();
  const grants = await api.owner('person_roles').where({ person_id: person.id }).select('role', 'entity_id as entity');
  const actor = actorWith(
    { id: person.id, name: '', email: '', factor: 'off', standsFor: () => person.standsFor },
    grants,
  );
  const got: string[] = [];
  const wanted: string[] = [];
  for (const { method, path, who, does, body } of acts) {
    const act = does!.act as AdvanceAct;
    // a revision that cannot be: what may be done is stale, and nothing is
    const sent = { ...(sampleOf(body as z.ZodType) as object), revision: 999_999 };
    const answer = await person.client.send(method.toUpperCase(), pathOf(path), sent);
    got.push(`${act}: ${answer.body.code}`);
    const facts = advanceFacts(row);
    const passes = typeof who === 'string' || who.some((role) => actor.holds(role, null));
    const judged = judgeAct(advanceLifecycle, act, facts, actor, { isOn: () => false });
    const code = !passes
      ? 'not-allowed'
      : audienceOf(facts, actor) === null
        ? 'not-found'
        : CODES[judged.ok ? 'ok' : judged.no];
    wanted.push(`${act}: ${code}`);
  }
  return { got, wanted };
}
const CODES = {
  ok: 'stale',
  state: 'stale',
  own: 'own-record',
  apart: 'kept-apart',
  role: 'not-allowed',
  relation: 'not-yours',
};

describe('an advance', () => {
  const inState = async (state: string) => {
    const sent = state !== 'draft';
    await api
      .owner('advances')
      .where({ id: number })
      .update({
        ...{ state, due_by: sent ? DAY : null, requested_on: sent ? DAY : null },
        ...{ deciders: state === 'requested' ? ['P09'] : [], approvers: sent ? ['P09'] : [] },
      });
  };
  it.each(ADVANCE_STATES)('that is %s: each act by who may, and by nobody else', async (state) => {
    await inState(state);
    for (const person of people) {
      const { got, wanted } = await codesOf(person);
      expect([person.name, got]).toEqual([person.name, wanted]);
    }
  });

  it('gives its claimant nothing by any other role of theirs', async () => {
    await api.owner('person_roles').where({ person_id: 'P05' }).delete();
    await api.owner('person_roles').insert(ROLES.map((role) => ({ person_id: 'P05', role })));
    const its = people.find((p) => p.id === 'P05')!;
    for (const state of ADVANCE_STATES) {
      await inState(state);
      await api
        .owner('advances')
        .where({ id: number })
        .update({ deciders: state === 'requested' ? ['P05', 'P09'] : [] });
      const { got, wanted } = await codesOf(its);
      expect(got).toEqual(wanted);
      const decided = got.filter((g) => /^(approve|decline|takeBack|grant|extend|payOut|giveBack):/.test(g));
      expect([state, [...new Set(decided.map((g) => g.split(': ')[1]))]]).toEqual([state, ['own-record']]);
    }
  });
});
