import type { Knex } from 'knex';

/**
 * Papers as people handle them: turned upright, several photographs put together, a file with several receipts divided.
 * What was put together or divided is kept, replaced by what was made of it.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table receipts drop constraint receipts_state_check;
    alter table receipts add constraint receipts_state_check check (state in ('added', 'confirmed', 'removed', 'replaced'));
    -- Quarter turns clockwise of each page, as its owner turned it.
    alter table receipts add turned smallint[];
    -- The receipts whose pages this one was made of.
    alter table receipts add made_from bigint[] not null default '{}';
    create index receipts_made_from on receipts using gin (made_from) where made_from <> '{}';
    -- Two photographs of one paper show the same: by what was confirmed, and by what was read.
    create index receipts_shown on receipts (amount, date) where amount is not null;
    create index readings_shown on readings ((replace(reading->'amount'->>'value', '.', '')), (reading->'date'->>'value'));
    -- Quarter turns after which each page stands upright: as it was told, and as it was found.
    alter table readings add told smallint[];
    alter table readings add turns smallint[] not null default '{}';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop index readings_shown, receipts_shown;
    alter table readings drop turns, drop told;
    alter table receipts drop made_from, drop turned;
    alter table receipts drop constraint receipts_state_check;
    alter table receipts add constraint receipts_state_check check (state in ('added', 'confirmed', 'removed'));
  `);
}
