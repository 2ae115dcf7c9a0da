import type { Knex } from 'knex';

const LARGE = ['document', 'evidence', 'result', 'ties', 'estimates'];
const compressed = (method: string): string =>
  LARGE.map((column) => `alter column ${column} set compression ${method}`).join(', ');

/**
 * What is computed of a claim is written with every cell that is saved: packed by the method that takes a tenth of the time,
 * where this server has it. What is there stays as it is until it is written again.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`do $$ begin alter table assessments ${compressed('lz4')};
    exception when feature_not_supported then null; end $$`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`alter table assessments ${compressed('default')}`);
}
