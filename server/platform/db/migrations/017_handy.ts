import type { Knex } from 'knex';

const DATED = `
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to)`;

/**
 * What makes preparing quick: codings saved under a name, codes kept first, lines that come again; and what is said of a
 * claim beside its figures: to whom a cost is rebilled, a note for finance alone, where else a person may be paid.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table coding_presets (
      row_id bigint generated always as identity primary key,
      id text not null,
      rule jsonb not null,${DATED},
      exclude using gist (id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    create table payee_terms (
      row_id bigint generated always as identity primary key,
      person_id text not null references people,
      entity_id text not null references entities,
      currencies jsonb not null,${DATED},
      exclude using gist (person_id with =, entity_id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    grant select, insert on coding_presets, payee_terms to ebbet_app;
    grant update (valid_to) on coding_presets, payee_terms to ebbet_app;

    create table own_codings (
      id bigint generated always as identity primary key,
      person_id text not null references people,
      name text not null check (length(name) > 0),
      coding jsonb not null,
      split jsonb,
      unique (person_id, name)
    );
    create table favourite_codes (
      person_id text not null references people,
      dimension_id text references dimensions,
      code text not null,
      unique nulls not distinct (person_id, dimension_id, code)
    );
    create table recurring_lines (
      id bigint generated always as identity primary key,
      person_id text not null references people,
      every text not null check (every in ('week', 'fortnight', 'month', 'quarter')),
      first_on date not null,
      next_on date not null,
      until date,
      line jsonb not null,
      check (first_on <= next_on)
    );
    create index recurring_lines_person on recurring_lines (person_id, next_on);
    grant select, insert, update, delete on own_codings, favourite_codes, recurring_lines to ebbet_app;

    alter table lines add rebill jsonb;
    alter table claims add finance_note text;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table claims drop finance_note;
    alter table lines drop rebill;
    drop table recurring_lines, favourite_codes, own_codings, payee_terms, coding_presets;
  `);
}
