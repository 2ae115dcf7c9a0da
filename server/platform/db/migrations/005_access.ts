import type { Knex } from 'knex';

const ROLE = 'ebbet_app';
/** What the application only ever adds to. */
const HISTORY = 'events, journal_rows, advance_movements, claim_versions';
/** Tables the application reads, and changes only through an administrator's tools. */
const REFERENCE =
  'people, credentials, person_roles, settings, entities, accounts, dimensions, dimension_values, categories, tax_codes, rates, periods';
/** What the application may add to, change and clear. */
const WORK = `sessions, rate_limits, lines, items, tax_entries, shares, assessments, findings, tie_marks, queries, claim_advances`;

/** The application's database role: no DDL, no TRUNCATE, and no way to change or remove history. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    do $$ begin
      if not exists (select 1 from pg_roles where rolname = '${ROLE}') then create role ${ROLE} login; end if;
    end $$;
    revoke all on schema public from public;
    grant usage on schema public to ${ROLE};
    grant select on ${REFERENCE} to ${ROLE};
    grant select, insert on ${HISTORY} to ${ROLE};
    grant select, insert, update, delete on ${WORK} to ${ROLE};
    grant select, insert on journals, receipts, receipt_files, idempotency_keys, event_words, advances to ${ROLE};
    grant select, update on claims to ${ROLE};
    grant update (live) on journals to ${ROLE};
    grant select, insert, update on journal_numbers to ${ROLE};
    grant execute on function lock_advance(text) to ${ROLE};
  `);
}

/** The role stays: it may own connections, and other databases of the server may use it. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`revoke all on all tables in schema public from ${ROLE}; revoke usage on schema public from ${ROLE};`);
}
