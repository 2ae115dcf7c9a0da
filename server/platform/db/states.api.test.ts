import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { claimsOfTomas, daysAgo } from '../../../test/fixtures/claimsOfTomas.ts';
import { startApi, type TestApi } from '../../../test/fixtures/startApi.ts';
import { sha256 } from '../history/sha256.ts';

/** What somebody with the application's role, who goes past the application, still cannot make of records. */
let api: TestApi;
let of: Awaited<ReturnType<typeof claimsOfTomas>>;
let cleared: string;
let posted: string;
let review: string;
beforeAll(async () => {
  api = await startApi('states');
  of = await claimsOfTomas(api);
  await api.owner('budgets').update({ amount: 90_000_000 });
  [cleared, posted, review] = [
    await of.inReview([of.line('31.00')]),
    await of.inReview([of.line('32.00'), of.line('5.00')]),
    await of.inReview([of.line('33.00')]),
  ];
  await of.clear(cleared);
  await of.clear(posted);
  expect((await of.post(posted)).status).toBe(201);
});
afterAll(() => api.close());

const refused = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'not refused',
    (error: { code?: string; message: string }) => error.code ?? error.message,
  );
const run = (sql: string, ...values: unknown[]) => refused(api.app.raw(sql, values as never));
const idOf = async (number: string) => String((await api.owner('claims').where({ number }).first('id')).id);
const sessionOf = async (person: string) =>
  (await api.owner('session_people').where({ person_id: person }).orderBy('since', 'desc').first()).sid as string;
/** An event somebody could write, so that what is refused is not refused for want of one. */
const tell = (kind: string, id: string) =>
  `select append_event('${kind}', '${id}', now(), null, 'x', '{}', null, null, null, null, null, null);`;

describe('a claim', () => {
  it('does not change its state but as its lifecycle says, with an event, and as the ledger says', async () => {
    const set = (number: string, state: string, more = '') =>
      run(`update claims set state = '${state}'${more} where number = ?`, number);
    expect(await set(cleared, 'posted')).toBe('EB010');
    expect(await set(review, 'cleared', `, cleared_by = 'P01'`)).toBe('EB011');
    expect(await run(`${tell('claim', cleared)} update claims set state = 'posted' where number = '${cleared}'`)).toBe(
      'EB010',
    );
    for (const state of ['in review', 'withdrawn', 'draft', 'cleared'])
      expect([state, await set(posted, state)]).toEqual([state, 'EB010']);
    expect(await run(`${tell('claim', posted)} update claims set state = 'reversed' where number = '${posted}'`)).toBe(
      'EB010',
    );
    expect(
      await run(
        `${tell('claim', review)} update claims set state = 'posted', cleared_by = 'P01' where number = '${review}'`,
      ),
    ).toBe('EB010');
    expect((await api.owner('claims').where({ number: posted }).first()).state).toBe('posted');
  });
  it('stays its claimant’s, under its number and in its entity', async () => {
    for (const change of [
      `claimant_id = 'P08'`,
      `preparer_id = 'P08'`,
      `number = 'C-0'`,
      `entity_id = 'JP'`,
      `currency = 'JPY'`,
    ])
      expect([change, await run(`update claims set ${change} where number = ?`, review)]).toEqual([change, 'EB010']);
  });
  it('that is posted keeps lines, items, assessment and cuts', async () => {
    const id = await idOf(posted);
    for (const sql of [
      'update lines set amount = 1 where claim_id = ?',
      'delete from tie_marks where claim_id = ?',
      `delete from lines where claim_id = ? and id = '2'`,
      'update assessments set result = result where claim_id = ?',
      `insert into lines (claim_id, version, id, position, date, amount, currency, paid_by) values (?, 1, '9', 9, now(), 1, 'EUR', 'own')`,
      `insert into shares (claim_id, version, line_id, position) values (?, 1, '1', 1)`,
    ])
      // what others hold is refused for that first
      expect([sql, (await run(sql, id)).replace('23503', 'EB010')]).toEqual([sql, 'EB010']);
    expect(await run(`update claims set version = 2 where number = ?`, posted)).toBe('EB010');
    expect((await api.owner('lines').where({ claim_id: id, id: '1' }).first()).amount).toBe(3200n);
  });
  it('that came back keeps the version that went out before', async () => {
    const number = await of.inReview([of.line('34.00')]);
    of.fine(await of.act('maeve', number, 'return', { reason: 'Why?' }));
    expect(await run('update lines set amount = 1 where claim_id = ? and version = 1', await idOf(number))).toBe(
      'EB010',
    );
    expect(await run('update lines set amount = 3401 where claim_id = ? and version = 2', await idOf(number))).toBe(
      'not refused',
    );
  });
});

describe('an advance', () => {
  it('is not paid out without a payout, nor handed to somebody else', async () => {
    await api.owner('advances').insert({
      ...{
        id: 'A-900',
        state: 'to pay out',
        person_id: 'P05',
        entity_id: 'IE',
        currency: 'EUR',
        amount: 100,
        requested: 100,
      },
      ...{ purpose: 'x', requested_on: daysAgo(1), due_by: daysAgo(-9), kind: 'trip' },
    });
    expect(await run(`${tell('advance', 'A-900')} update advances set state = 'paid out' where id = 'A-900'`)).toBe(
      'EB010',
    );
    expect(await run(`update advances set person_id = 'P08' where id = 'A-900'`)).toBe('EB010');
    expect(await run(`update advances set amount = 1 where id = 'A-031'`)).toBe('EB010');
  });
});

describe('a record that nothing else guards', () => {
  it('goes the ways of its lifecycle alone, event or not', async () => {
    const id = (await of.by.tomas.post('/advances', { kind: 'trip', purpose: 'x', amount: '1.00', currency: 'EUR' }))
      .body.number;
    const go = (state: string) =>
      run(`${tell('advance', id)} update advances set state = '${state}' where id = '${id}'`);
    expect(await go('to pay out')).toBe('EB010');
  });
});

describe('budgets', () => {
  it('do not fall below zero by a movement that nothing stands behind', async () => {
    const { id } = await api.owner('budgets').where({ code: 'G-118' }).first('id');
    const move = (stage: string) =>
      run(
        `insert into budget_movements (budget_id, stage, amount, source_kind, source_id, at) values (?, '${stage}', -900000000, 'claim', 'C-1001', now())`,
        String(id),
      );
    expect([await move('reserved'), await move('cleared'), await move('posted')]).toEqual(['23514', 'EB010', 'EB010']);
  });
});

describe('a journal', () => {
  const head = (more: object = {}) => ({
    ...{
      number: `X-${randomUUID()}`,
      entity_id: 'IE',
      currency: 'EUR',
      date: daysAgo(0),
      period_id: daysAgo(0).slice(0, 7),
    },
    ...{
      purpose: 'advance payout',
      source_kind: 'advance',
      source_id: 'A-031',
      live: true,
      posted_by: 'P03',
      posted_at: new Date(),
    },
    ...more,
  });
  const row = (position: number, debit: number, credit: number) => ({
    ...{ position, account: '6210', coding: {}, debit, credit, currency: 'EUR', amount: debit - credit, text: '' },
  });
  const post = (fields: object, proof: string) => {
    const args = [head(fields), [row(1, 5, 0), row(2, 0, 5)], [], []].map((arg) => JSON.stringify(arg));
    return run('select hash from post_journal(?::jsonb, ?::jsonb, ?::jsonb, ?::jsonb, ?)', ...args, proof);
  };
  it('names a controller of its entity who shows that it is them, and is of a record of that entity', async () => {
    const odd = await sessionOf('P03');
    expect(await post({}, '')).toBe('EB007');
    expect(await post({}, await sessionOf('P01'))).toBe('EB007');
    expect(await post({ posted_by: 'P01' }, await sessionOf('P01'))).toBe('EB012');
    expect(await post({ entity_id: 'JP', currency: 'JPY', source_id: 'A-031' }, odd)).toBe('EB012');
    expect(
      await post({ purpose: 'claim', source_kind: 'claim', source_id: 'C-1002/1', document: {}, book_hash: 'x' }, odd),
    ).not.toBe('not refused');
    expect(await post({ source_id: 'A-none' }, odd)).toBe('EB012');
  });
  it('has the hash the database computes, whatever it is given', async () => {
    const given = 'a'.repeat(64);
    const args = [
      head({ hash: given, source_id: 'A-031', purpose: 'revaluation', undone_on: daysAgo(-1) }),
      [row(1, 5, 0), row(2, 0, 5)],
      [],
      [],
    ];
    const { rows } = await api.app.raw('select hash from post_journal(?::jsonb, ?::jsonb, ?::jsonb, ?::jsonb, ?)', [
      ...args.map((arg) => JSON.stringify(arg)),
      await sessionOf('P03'),
    ] as never);
    expect(rows[0].hash).not.toBe(given);
  });
  it('of a claim is not there beside a claim that is not posted', async () => {
    const { document, book_hash } = await api
      .owner('journals')
      .where({ source_id: `${posted}/1` })
      .first();
    const fields = { purpose: 'claim', source_kind: 'claim', source_id: `${review}/1`, document, book_hash };
    expect(await post(fields, await sessionOf('P03'))).toBe('EB010');
  });
});

describe('the history', () => {
  it('goes on in the order of time', async () => {
    const at = (moment: string) =>
      run(`select append_event('claim', ?, ${moment}, null, 'x', '{}', null, null, null, null, null, null)`, review);
    expect(await at(`now() - interval '1 day'`)).toBe('EB011');
    expect(await at('now()')).toBe('not refused');
  });
  it('tells of a period that is opened and of a role that is given', async () => {
    await api
      .owner('periods')
      .where({ entity_id: 'IE', id: daysAgo(60).slice(0, 7) })
      .update({ state: 'closed' });
    expect(await run(`update periods set state = 'open' where entity_id = 'IE' and state = 'closed'`)).toBe('EB011');
    expect(await run(`insert into person_roles (person_id, role) values ('P05', 'controller')`)).toBe('EB011');
    await api
      .owner('person_roles')
      .where({ person_id: 'P02', role: 'reviewer' })
      .update({ valid_to: daysAgo(-9) });
    expect(await run(`update person_roles set valid_to = null where person_id = 'P02'`)).toBe('EB011');
    expect(await run(`insert into limits (id, rule) values ('x', '{}')`)).toBe('EB011');
    expect(await run(`insert into settings (key, value) values ('raised-tolerance-percent', '100')`)).toBe('EB011');
    expect(await run(`update settings set value = 'false' where key = 'clearing-and-posting-apart'`)).toMatch(
      /EB011|not refused/,
    );
  });
});

describe('signing in past the application', () => {
  it('does not make a session, a token or a letter somebody’s', async () => {
    const sid = randomUUID();
    await api
      .app('sessions')
      .insert({ sid, sess: JSON.stringify({ personId: 'P03' }), expire: new Date(Date.now() + 9e6) });
    const event = (proof: string) =>
      run(`select append_event('claim', ?, now(), 'P03', 'x', '{}', null, null, null, null, ?, null)`, review, proof);
    expect(await event(sid)).toBe('EB007');
    expect(await run(`insert into session_people values (?, 'P03', now())`, sid)).toBe('42501');
    const token = 'ebbet_made_up';
    const mine = ['P03', 'mine', sha256(token), '{controller}'];
    expect(
      await run('insert into api_tokens (person_id, name, hash, roles, made_at) values (?, ?, ?, ?, now())', ...mine),
    ).toBe('42501');
    expect(await run(`select make_token(?, ?, ?, ?, now(), ?)`, ...mine, sid)).toBe('EB007');
    expect(await run(`insert into password_letters values (?, 'P03', now())`, sha256('x'))).toBe('42501');
  });
  it('leaves in the history that somebody signed in, or that a letter was written', async () => {
    const of3 = () => api.owner('events').where({ record_kind: 'session', record_id: 'P03' }).count({ n: '*' }).first();
    const before = Number((await of3())!.n);
    const sid = randomUUID();
    await api
      .app('sessions')
      .insert({ sid, sess: JSON.stringify({ personId: 'P03' }), expire: new Date(Date.now() + 9e6) });
    expect(await run(`select open_session(?, 'P03', now())`, sid)).toBe('not refused');
    expect(Number((await of3())!.n)).toBe(before + 1);
    expect(await run(`select write_letter(?, 'P03', now())`, sha256('y'))).toBe('not refused');
    const letter = await api
      .owner('events')
      .where({ record_kind: 'sign-in', record_id: 'P03', kind: 'letter written' });
    expect(letter).toHaveLength(1);
  });
  it('signing in leaves it too', async () => {
    const count = async () =>
      Number(
        (await api.owner('events').where({ record_kind: 'session', record_id: 'P05' }).count({ n: '*' }).first())!.n,
      );
    const before = await count();
    await api.as('tomas.brandao');
    expect(await count()).toBe(before + 1);
  });
});
