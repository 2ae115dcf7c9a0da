import type { Knex } from 'knex';

/** What lines are computed from, and which estimate of a plan they are the cost of. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table lines add quantity jsonb, add estimate text;
    alter table items add quantity jsonb;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`alter table items drop quantity; alter table lines drop estimate, drop quantity;`);
}
