import type { Knex } from 'knex';

/** People, how they sign in, what they may do and until when, and the tokens their scripts carry. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create extension if not exists btree_gist;
    create extension if not exists pg_trgm;

    create table entities (
      id text primary key,
      name text not null,
      currency char(3) not null,
      time_zone text not null
    );
    create table people (
      id text primary key,
      name text not null,
      email text not null unique check (email = lower(email)),
      kind text not null check (kind in ('employee', 'contractor')),
      entity_id text not null references entities,
      currency char(3) not null,
      usual_approver text references people,
      active boolean not null default true,
      check (usual_approver <> id)
    );
    create table credentials (
      person_id text primary key references people,
      password_hash text not null
    );
    create table person_roles (
      row_id bigint generated always as identity primary key,
      person_id text not null references people,
      role text not null check (role in ('claimant', 'preparer', 'approver', 'reviewer', 'controller', 'administrator', 'auditor')),
      entity_id text references entities,
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      exclude using gist (person_id with =, role with =, (coalesce(entity_id, '*')) with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    create index person_roles_person on person_roles (person_id);
    create table substitutes (
      row_id bigint generated always as identity primary key,
      person_id text not null references people,
      substitute_id text not null references people,
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      check (person_id <> substitute_id),
      exclude using gist (person_id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    create table sessions (
      sid varchar not null primary key,
      sess json not null,
      expire timestamptz not null
    );
    create index sessions_expire on sessions (expire);
    create table rate_limits (
      key varchar(255) primary key,
      points integer not null default 0,
      expire bigint
    );
    create table api_tokens (
      id bigint generated always as identity primary key,
      person_id text not null references people,
      name text not null,
      hash text not null unique check (length(hash) = 64),
      roles text[] not null,
      made_at timestamptz not null,
      revoked_at timestamptz
    );
    create index api_tokens_person on api_tokens (person_id);
    create table settings (
      key text primary key,
      value jsonb not null
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(
    'drop table settings, api_tokens, rate_limits, sessions, substitutes, person_roles, credentials, people, entities',
  );
}
