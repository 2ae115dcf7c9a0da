import type { Knex } from 'knex';

/** How long the outcome of a request is remembered, for the same one that comes again. */
const KEPT = `interval '30 days'`;

/**
 * Every write carries a key, and what it came to is remembered under it. That is no history: it goes after a while, and not
 * before, since a request that was forgotten could be done a second time.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    drop trigger idempotency_keys_kept on idempotency_keys;
    create trigger idempotency_keys_kept before update on idempotency_keys for each row execute function refuse_change();
    create trigger idempotency_keys_remembered before delete on idempotency_keys for each row
      when (old.at > now() - ${KEPT}) execute function refuse_change();
    create index idempotency_keys_at on idempotency_keys (at);
    grant delete on idempotency_keys to ebbet_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    revoke delete on idempotency_keys from ebbet_app;
    drop index idempotency_keys_at;
    drop trigger idempotency_keys_remembered on idempotency_keys;
    drop trigger idempotency_keys_kept on idempotency_keys;
    create trigger idempotency_keys_kept before update or delete on idempotency_keys for each row execute function refuse_change();
  `);
}
