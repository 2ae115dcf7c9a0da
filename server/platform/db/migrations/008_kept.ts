import type { Knex } from 'knex';

/** History that nobody empties, the owner included. */
const KEPT = [
  'receipt_files',
  'receipt_pages',
  'statements',
  'statement_charges',

  'books',
  'event_words',
  'idempotency_keys',
  'open_items',
];

/** What is proved stays: no table of history is emptied, and a paper under review is not read again, whoever owns a copy. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ${KEPT.map((table) => `create trigger ${table}_no_truncate before truncate on ${table} for each statement execute function refuse_change();`).join('\n    ')}

    create function keep_reading() returns trigger language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    begin
      if old.state <> 'waiting' and exists (
        select 1 from receipts r
        join lines l on l.receipt_id = r.id
        join claims c on c.id = l.claim_id and c.version = l.version
        where r.sha256 = old.sha256 and c.state not in ('draft', 'returned')
      ) then
        raise exception 'the reading of a paper under review cannot be changed' using errcode = 'EB006';
      end if;
      return new;
    end $$;
    create trigger readings_kept before update or delete on readings for each row execute function keep_reading();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop trigger readings_kept on readings;
    drop function keep_reading;
    ${KEPT.map((table) => `drop trigger ${table}_no_truncate on ${table};`).join('\n    ')}
  `);
}
