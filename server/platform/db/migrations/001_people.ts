import type { Knex } from 'knex';

/** People, how they sign in, and what they may do. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table people (
      id text primary key,
      name text not null,
      email text not null unique check (email = lower(email)),
      kind text not null check (kind in ('employee', 'contractor')),
      entity_id text not null,
      currency char(3) not null,
      active boolean not null default true
    );
    create table credentials (
      person_id text primary key references people,
      password_hash text not null
    );
    create table person_roles (
      person_id text not null references people,
      role text not null check (role in ('claimant', 'preparer', 'approver', 'reviewer', 'controller', 'administrator', 'auditor')),
      primary key (person_id, role)
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
    create table settings (
      key text primary key,
      value jsonb not null
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop table settings, rate_limits, sessions, person_roles, credentials, people');
}
