import type { Knex } from 'knex';

const DATED = `
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to)`;
const ONE_AT_A_TIME = (key: string) => `exclude using gist (${key}, daterange(valid_from, valid_to, '[]') with &&)`;

/**
 * The book claims are assessed by: terms of the entities, chart, taxes, rates, rules, budgets, periods. Rows hold from
 * one date to another, both included; two of the same key never hold on the same day.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table accounts (
      code text primary key,
      name text not null
    );
    create table entity_terms (
      row_id bigint generated always as identity primary key,
      entity_id text not null references entities,
      rate_date text not null default 'line' check (rate_date in ('line', 'submitted', 'posting')),
      tax_registrations text[] not null default '{}',
      recovery numeric not null default 100 check (recovery between 0 and 100),
      own_rate_tolerance numeric not null default 0 check (own_rate_tolerance >= 0),
      tax_number_required boolean not null default false,
      accounts jsonb not null,
      cards jsonb not null default '{}',
      ${DATED},
      ${ONE_AT_A_TIME('entity_id with =')}
    );
    create table dimensions (
      id text primary key,
      name text not null,
      position integer not null unique
    );
    create table dimension_values (
      row_id bigint generated always as identity unique,
      dimension_id text not null references dimensions,
      code text not null,
      name text not null,
      owner_id text references people,
      categories text[],
      primary key (dimension_id, code),
      ${DATED}
    );
    create table categories (
      row_id bigint generated always as identity primary key,
      id text not null,
      name text not null,
      account text not null references accounts,
      recovery numeric not null default 100 check (recovery between 0 and 100),
      merchant_codes text[] not null default '{}',
      fields jsonb not null default '[]',
      ${DATED},
      ${ONE_AT_A_TIME('id with =')}
    );
    create table tax_codes (
      row_id bigint generated always as identity primary key,
      code text not null,
      name text not null,
      country text not null,
      rate numeric check (rate >= 0),
      account text references accounts,
      recovery numeric check (recovery between 0 and 100),
      components jsonb,
      self_assessed boolean not null default false,
      output_account text references accounts,
      check (components is not null or (rate is not null and account is not null and recovery is not null)),
      check (not self_assessed or (components is null and output_account is not null)),
      ${DATED},
      ${ONE_AT_A_TIME('code with =')}
    );
    create table coding_rules (
      row_id bigint generated always as identity primary key,
      id text not null,
      rule jsonb not null,
      ${DATED},
      ${ONE_AT_A_TIME('id with =')}
    );
    create table limits (
      row_id bigint generated always as identity primary key,
      id text not null,
      rule jsonb not null,
      ${DATED},
      ${ONE_AT_A_TIME('id with =')}
    );
    create table routes (
      row_id bigint generated always as identity primary key,
      id text not null,
      rule jsonb not null,
      ${DATED},
      ${ONE_AT_A_TIME('id with =')}
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
    create table budgets (
      id bigint generated always as identity primary key,
      entity_id text not null references entities,
      dimension_id text not null,
      code text not null,
      category text,
      amount bigint not null check (amount >= 0),
      reserved bigint not null default 0,
      cleared bigint not null default 0,
      posted bigint not null default 0,
      foreign key (dimension_id, code) references dimension_values,
      unique nulls not distinct (entity_id, dimension_id, code, category)
    );
    create table periods (
      entity_id text not null references entities,
      id text not null,
      from_date date not null,
      to_date date not null,
      state text not null check (state in ('open', 'closed')),
      revision integer not null default 1,
      primary key (entity_id, id),
      check (from_date <= to_date),
      exclude using gist (entity_id with =, daterange(from_date, to_date, '[]') with &&)
    );
    create table books (
      hash text primary key check (length(hash) = 64),
      content jsonb not null
    );
    create table entity_books (
      entity_id text primary key references entities,
      hash text not null references books
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`drop table entity_books, books, periods, budgets, rates, routes, limits, coding_rules, tax_codes, categories,
    dimension_values, dimensions, entity_terms, accounts`);
}
