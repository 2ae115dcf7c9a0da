import type { Knex } from 'knex';

/**
 * A bank's reference may come again with another movement, so it alone names none. Remembered columns of tables say for
 * which card they were told. Merchants are compared where candidates for duplicates are sought. Numbers of lines are not given again.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    drop index charges_reference;
    -- The beginnings of a merchant's words, without case and accents. Merchants that the core takes for one share one.
    create function merchant_keys(name text) returns text[] language sql immutable set search_path = pg_catalog, pg_temp as $$
      select coalesce(array_agg(distinct left(word, 3)), '{}') from regexp_split_to_table(
        regexp_replace(replace(replace(replace(normalize(lower(name), NFKD), 'ß', 'ss'), 'æ', 'ae'), 'ø', 'o'), '[\\u0300-\\u036f]', '', 'g'),
        '[^[:alnum:]]+') as word where word <> ''
    $$;
    revoke execute on function merchant_keys(text) from public;
    grant execute on function merchant_keys(text) to ebbet_app;
    alter table csv_mappings add card_id text references cards;
    -- The highest number that a line of the claim ever had.
    alter table claims add last_line integer not null default 0;
    update claims c set last_line = coalesce((select max(id::integer) from lines l where l.claim_id = c.id and l.id ~ '^[0-9]{1,6}$'), 0);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table claims drop last_line;
    alter table csv_mappings drop card_id;
    drop function merchant_keys;
    create unique index charges_reference on charges (card_id, reference) where reference is not null;
  `);
}
