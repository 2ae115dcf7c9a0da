import type { Knex } from 'knex';

const ROLE = 'ebbet_app';

/** The columns of the Desk as each person chose, ordered and sized them. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table desk_columns (
      person_id text primary key references people,
      columns jsonb not null check (jsonb_typeof(columns) = 'array')
    );
    grant select, insert, update, delete on desk_columns to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`drop table desk_columns;`);
}
