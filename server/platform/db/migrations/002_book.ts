import type { Knex } from 'knex';

/** The book claims are assessed by: entities, chart, taxes, rates, periods. Rows hold from one date to another. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create extension if not exists btree_gist;
    create table entities (
      id text primary key,
      name text not null,
      currency char(3) not null,
      rate_date text not null default 'line' check (rate_date in ('line', 'submitted', 'posting')),
      tax_registrations text[] not null default '{}',
      recovery numeric not null default 100 check (recovery between 0 and 100),
      own_rate_tolerance numeric not null default 0 check (own_rate_tolerance >= 0),
      tax_number_required boolean not null default false,
      accounts jsonb not null,
      cards jsonb not null default '{}'
    );
    alter table people add foreign key (entity_id) references entities;
    create table accounts (
      code text primary key,
      name text not null
    );
    create table dimensions (
      id text primary key,
      name text not null,
      position integer not null unique
    );
    create table dimension_values (
      dimension_id text not null references dimensions,
      code text not null,
      name text not null,
      owner_id text references people,
      valid_from date,
      valid_to date,
      primary key (dimension_id, code),
      check (valid_from <= valid_to)
    );
    create table categories (
      id text not null,
      name text not null,
      account text not null references accounts,
      recovery numeric not null default 100 check (recovery between 0 and 100),
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      exclude using gist (id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    create table tax_codes (
      code text not null,
      name text not null,
      country text not null,
      rate numeric check (rate >= 0),
      account text references accounts,
      recovery numeric check (recovery between 0 and 100),
      components jsonb,
      self_assessed boolean not null default false,
      output_account text references accounts,
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      check (components is not null or (rate is not null and account is not null and recovery is not null)),
      check (not self_assessed or (components is null and output_account is not null)),
      exclude using gist (code with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    create table rates (
      from_currency char(3) not null,
      to_currency char(3) not null,
      date date not null,
      rate numeric not null check (rate > 0),
      source text not null,
      primary key (from_currency, to_currency, date),
      check (from_currency <> to_currency)
    );
    create index rates_date on rates (date);
    create table periods (
      entity_id text not null references entities,
      id text not null,
      from_date date not null,
      to_date date not null,
      state text not null check (state in ('open', 'closed')),
      primary key (entity_id, id),
      check (from_date <= to_date),
      exclude using gist (entity_id with =, daterange(from_date, to_date, '[]') with &&)
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table people drop constraint people_entity_id_fkey');
  await knex.raw('drop table periods, rates, tax_codes, categories, dimension_values, dimensions, accounts, entities');
}
