import type { Knex } from 'knex';

/**
 * Questions are answered while the claim is in review: each is asked of its makers or of who approved it, may come with files,
 * and can be taken back. The claim's row knows who is asked now, and how many questions wait and are answered.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table queries
      add column asks text not null default 'claimant' check (asks in ('claimant', 'approver')),
      add column taken_back_at timestamptz;
    alter table claims
      add column questioned text[] not null default '{}',
      add column waiting integer not null default 0 check (waiting >= 0),
      add column answered integer not null default 0 check (answered >= 0);
    alter table attachments
      add column query_id bigint references queries,
      drop constraint attachments_check,
      add constraint attachments_check check (num_nonnulls(claim_id, plan_id, booking_id, advance_id, payment_id, query_id) = 1);
    create index attachments_query on attachments (query_id) where query_id is not null;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    delete from attachments where query_id is not null;
    alter table attachments drop constraint attachments_check, drop column query_id,
      add constraint attachments_check check (num_nonnulls(claim_id, plan_id, booking_id, advance_id, payment_id) = 1);
    alter table claims drop column questioned, drop column waiting, drop column answered;
    alter table queries drop column asks, drop column taken_back_at;
  `);
}
