import type { Knex } from 'knex';

const formats = (...names: string[]): string => `
    alter table statements drop constraint statements_format_check;
    alter table statements add constraint statements_format_check check (format in (${names.map((n) => `'${n}'`).join(', ')}));`;
const BEFORE = ['camt.053', 'OFX', 'MT940', 'CSV'];

/** The report of a day and the notice of entries are read as the statement is. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(formats(...BEFORE, 'camt.052', 'camt.054'));
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(formats(...BEFORE));
}
