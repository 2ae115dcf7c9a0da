import type { Knex } from 'knex';

const ROLE = 'ebbet_app';
/** What the application reads and never writes itself: functions of the database write it. */
const WRITTEN_BY_FUNCTIONS =
  'events, event_words, journals, journal_rows, journal_numbers, tax_rows, open_items, open_item_movements, claim_counts';
/** Master data: read here, written by the role of administration's acts below. */
const MASTER = `entities, entity_terms, people, credentials, person_roles, substitutes, accounts, dimensions, dimension_values, categories,
  tax_codes, coding_rules, limits, routes, rates, budgets, cards, settings, periods`;
/** What is only ever added to. */
const ADDED = `books, receipt_files, receipt_pages, statements, statement_charges, budget_movements, idempotency_keys`;
/** What is added to and changed, never removed. */
const CHANGED = `entity_books, claims, claim_versions, advances, receipts, readings, charges, charge_marks, card_months, csv_mappings,
  feed_checks, api_tokens, assessments, queries`;
/** What the application may add to, change and clear. */
const WORK = `sessions, rate_limits, lines, items, tax_entries, shares, claim_advances, assessment_uses, findings, tie_marks`;

/** The application's database role: no DDL, no TRUNCATE, no temporary tables, and no way to change or remove history. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    do $$ begin
      if not exists (select 1 from pg_roles where rolname = '${ROLE}') then create role ${ROLE} login; end if;
      execute format('revoke temporary on database %I from public', current_database());
    end $$;
    revoke all on schema public from public;
    grant usage on schema public to ${ROLE};
    grant select on ${WRITTEN_BY_FUNCTIONS}, ${MASTER} to ${ROLE};
    grant select, insert on ${ADDED} to ${ROLE};
    grant select, insert, update on ${CHANGED} to ${ROLE};
    grant select, insert, update, delete on ${WORK} to ${ROLE};
    grant insert on entities, entity_terms, people, person_roles, substitutes, accounts, dimensions, dimension_values, categories,
      tax_codes, coding_rules, limits, routes, rates, cards to ${ROLE};
    grant insert (entity_id, dimension_id, code, category, amount), update (amount) on budgets to ${ROLE};
    grant update (valid_to) on entity_terms, person_roles, substitutes, dimension_values, categories, tax_codes, coding_rules, limits, routes to ${ROLE};
    grant update (name, email, kind, currency, usual_approver, active, entity_id) on people to ${ROLE};
    grant update (name, time_zone) on entities to ${ROLE};
    grant update (name) on accounts to ${ROLE};
    grant update (name, owner_id, categories) on dimension_values to ${ROLE};
    grant update (holder_id, label) on cards to ${ROLE};
    grant insert, update (value) on settings to ${ROLE};
    grant insert, update (state, revision) on periods to ${ROLE};
    grant usage on sequence claim_numbers to ${ROLE};
    revoke execute on all functions in schema public from public;
    grant execute on function append_event(text, text, timestamptz, text, text, text, text, text, text, jsonb),
      next_journal_number(text), post_journal(jsonb, jsonb, jsonb, jsonb), lock_open_items(text, text, text[]), lock_budgets(bigint[]),
      lock_card(text), control_accounts(text) to ${ROLE};
  `);
}

/** The role stays: it may own connections, and other databases of the server may use it. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`revoke all on all tables in schema public from ${ROLE}; revoke usage on schema public from ${ROLE};`);
}
