import type { Knex } from 'knex';

/** Rules as data: limits, coding rules, budgets; and the fields of lines and claims they look at. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table lines
      add nights integer check (nights > 0),
      add attendees jsonb,
      add fields jsonb not null default '{}';
    alter table claims add plan jsonb;
    alter table dimension_values add categories text[];
    create table budgets (
      entity_id text not null references entities,
      dimension_id text not null,
      code text not null,
      category text,
      amount bigint not null check (amount >= 0),
      foreign key (dimension_id, code) references dimension_values,
      unique nulls not distinct (entity_id, dimension_id, code, category)
    );
    create table coding_rules (
      id text not null,
      rule jsonb not null,
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      exclude using gist (id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    create table limits (
      id text not null,
      rule jsonb not null,
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      exclude using gist (id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    grant select on budgets, coding_rules, limits to ebbet_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table limits, coding_rules, budgets;
    alter table dimension_values drop categories;
    alter table claims drop plan;
    alter table lines drop nights, drop attendees, drop fields;
  `);
}
