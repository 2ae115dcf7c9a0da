import type { Knex } from 'knex';

/** Finds what the same person handed in before a claim, however many claims there are. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('create index claims_handed_in on claims (claimant_id, submitted_on, id)');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop index claims_handed_in');
}
