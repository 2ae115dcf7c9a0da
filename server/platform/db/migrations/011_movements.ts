import type { Knex } from 'knex';

/**
 * A bank's reference may come again with another movement, so it alone names none. Remembered columns of tables say for
 * which card they were told.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    drop index charges_reference;
    alter table csv_mappings add card_id text references cards;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table csv_mappings drop card_id;
    create unique index charges_reference on charges (card_id, reference) where reference is not null;
  `);
}
