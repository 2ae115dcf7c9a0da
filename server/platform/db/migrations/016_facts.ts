import type { Knex } from 'knex';

/** What a line is computed from besides a quantity: a journey, or the days of a stay; and what was spent of a plan's estimates. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table lines add journey jsonb, add stay jsonb;
    alter table assessments add estimates jsonb not null default '[]';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`alter table assessments drop estimates; alter table lines drop stay, drop journey;`);
}
