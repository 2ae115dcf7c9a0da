import type { Knex } from 'knex';

/** What the weights of a split count: days, heads, square metres. */
export async function up(knex: Knex): Promise<void> {
  for (const table of ['lines', 'items'])
    await knex.raw(`alter table ${table} add column split_unit text check (split_unit is null or split_by = 'weight')`);
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['lines', 'items']) await knex.raw(`alter table ${table} drop column split_unit`);
}
