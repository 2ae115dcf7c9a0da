import type { Knex } from 'knex';

/** What was declined of a version holds in the next one too, of lines that are as they were. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    -- the fingerprint of the line it holds of, where it was declined in an earlier version
    alter table declined_lines add column about text;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`alter table declined_lines drop column about`);
}
