import type { Knex } from 'knex';

const SAFE = 'security definer set search_path = pg_catalog, public, pg_temp';
const KEYS = (of: string) => `
        select l.currency || ' ' || l.amount || ' ' || k, l.date, l.claim_id, l.version, l.id
          from ${of} l cross join unnest(merchant_keys(l.merchant)) k where l.amount <> 0
        on conflict do nothing`;

/**
 * What two lines have to share to be looked at as one purchase claimed twice (currency, amount, beginning of a word of the merchant),
 * computed once a line: so those alike are found by an index, a bounded number of them for each line, however many there are.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table line_keys (
      key text not null,
      date date not null,
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      primary key (key, date, claim_id, version, line_id),
      foreign key (claim_id, version, line_id) references lines on delete cascade
    );
    create index line_keys_line on line_keys (claim_id, version, line_id);
    insert into line_keys ${KEYS('lines')};
    grant select on line_keys to ebbet_app;
    create function key_new_lines() returns trigger language plpgsql ${SAFE} as $$
    begin
      insert into line_keys (key, date, claim_id, version, line_id) ${KEYS('added')};
      return null;
    end $$;
    create function key_changed_lines() returns trigger language plpgsql ${SAFE} as $$
    begin
      delete from line_keys k using was w join added a on a.claim_id = w.claim_id and a.version = w.version and a.id = w.id
        where k.claim_id = w.claim_id and k.version = w.version and k.line_id = w.id
          and (w.merchant, w.amount, w.currency, w.date) is distinct from (a.merchant, a.amount, a.currency, a.date);
      insert into line_keys (key, date, claim_id, version, line_id) ${KEYS('added')};
      return null;
    end $$;
    create trigger lines_keyed after insert on lines referencing new table as added for each statement execute function key_new_lines();
    create trigger lines_keyed_anew after update on lines referencing old table as was new table as added
      for each statement execute function key_changed_lines();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop trigger lines_keyed on lines;
    drop trigger lines_keyed_anew on lines;
    drop function key_new_lines, key_changed_lines;
    drop table line_keys;
  `);
}
