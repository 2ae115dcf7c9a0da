import type { Knex } from 'knex';

const RECORDS = ['claims', 'plans', 'advances'] as const;

/**
 * Who decides about a record: its route as it was computed when it was submitted, and each decision that is needed. Beside the
 * record stand who decides now, who is or was on its route, and who decided last at which revision.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table people add column sponsor text references people, add check (sponsor <> id);
    grant update (sponsor) on people to ebbet_app;

    create table approval_routes (
      record_kind text not null check (record_kind in ('claim', 'plan', 'advance')),
      record_id text not null,
      version integer not null,
      route jsonb not null,
      computed_at timestamptz not null,
      primary key (record_kind, record_id, version)
    );
    create table approval_needs (
      id bigint generated always as identity primary key,
      record_kind text not null check (record_kind in ('claim', 'plan', 'advance')),
      record_id text not null,
      version integer not null,
      asks text not null check (asks in ('record', 'code')),
      place integer not null,
      level text not null,
      people text[] not null check (cardinality(people) > 0),
      about jsonb not null check (jsonb_typeof(about) = 'array'),
      detours jsonb not null,
      waiting boolean not null,
      since timestamptz not null,
      decided_by text references people,
      decided_at timestamptz,
      decided_in integer,
      check (not (waiting and decided_by is not null)),
      check (num_nonnulls(decided_by, decided_at, decided_in) in (0, 3))
    );
    create index approval_needs_record on approval_needs (record_kind, record_id, version);
    create index approval_needs_waiting on approval_needs using gin (people) where waiting;
    create index substitutes_substitute on substitutes (substitute_id);
    grant select, insert, update, delete on approval_routes, approval_needs to ebbet_app;
  `);
  for (const table of RECORDS)
    await knex.raw(`
      alter table ${table} add column deciders text[] not null default '{}', add column approvers text[] not null default '{}',
        add column decided_by text references people, add column decided_in integer;
      update ${table} set approvers = array[approver_id] where approver_id is not null;
    `);
  await knex.raw(`
    alter table claims add column code_owners text[] not null default '{}';
    insert into approval_needs (record_kind, record_id, version, asks, place, level, people, about, detours, waiting, since)
      select 'claim', number, version, 'record', 1, 'Usual approver', approvers, '[]'::jsonb, '[]'::jsonb, true, now() from claims
        where state = 'with approver' and approver_id is not null
      union all select 'plan', number, 1, 'record', 1, 'Usual approver', approvers, '[]'::jsonb, '[]'::jsonb, true, now() from plans
        where state = 'with approver' and approver_id is not null
      union all select 'advance', id, 1, 'record', 1, 'Usual approver', approvers, '[]'::jsonb, '[]'::jsonb, true, now() from advances
        where state = 'requested' and approver_id is not null;
    update claims set deciders = approvers where state = 'with approver';
    update plans set deciders = approvers where state = 'with approver';
    update advances set deciders = approvers where state = 'requested';
  `);
  for (const table of RECORDS) await knex.raw(`alter table ${table} drop column approver_id`);
}

export async function down(knex: Knex): Promise<void> {
  for (const table of RECORDS)
    await knex.raw(`
      alter table ${table} add column approver_id text references people;
      update ${table} set approver_id = approvers[1];
      alter table ${table} drop column deciders, drop column approvers, drop column decided_by, drop column decided_in;
    `);
  await knex.raw(`
    alter table claims drop column code_owners;
    create index plans_approver on plans (approver_id) where state = 'with approver';
    drop table approval_needs, approval_routes;
    drop index substitutes_substitute;
    alter table people drop column sponsor;
  `);
}
