import type { Knex } from 'knex';

/** What is gathered before a claim is written: receipts with their pages and readings, cards, statements, charges. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table receipt_files (
      sha256 text primary key,
      original bytea not null,
      original_type text not null,
      kind text not null default 'picture' check (kind in ('picture', 'pdf', 'invoice', 'mail')),
      pages integer not null default 1 check (pages >= 1),
      likeness text check (likeness ~ '^[0-9a-f]{16}$')
    );
    ${[1, 5, 9, 13]
      .map((from) => `create index on receipt_files (substr(likeness, ${from}, 4)) where likeness is not null;`)
      .join('\n    ')}
    create table receipt_pages (
      sha256 text not null references receipt_files,
      page integer not null check (page >= 1),
      view bytea not null,
      view_type text not null,
      width integer not null,
      height integer not null,
      primary key (sha256, page)
    );
    create table receipts (
      id bigint generated always as identity primary key,
      owner_id text not null references people,
      sha256 text not null references receipt_files check (length(sha256) = 64),
      added_at timestamptz not null,
      name text not null default '',
      came_in text,
      state text not null default 'added' check (state in ('added', 'confirmed', 'removed')),
      revision integer not null default 1,
      amount bigint,
      currency char(3),
      date date,
      merchant text,
      tax_number text,
      card_digits text check (card_digits ~ '^[0-9]{4}$'),
      taxes jsonb not null default '[]',
      confirmed_at timestamptz,
      check ((amount is null) = (currency is null)),
      unique (owner_id, sha256)
    );
    create index receipts_sha256 on receipts (sha256);
    create table readings (
      sha256 text primary key references receipt_files,
      state text not null check (state in ('waiting', 'read', 'failed')),
      asked_at timestamptz not null,
      read_at timestamptz,
      method text check (method in ('recognised', 'text', 'e-invoice')),
      reading jsonb,
      remarks jsonb not null default '[]',
      problem text,
      check ((state = 'read') = (reading is not null)),
      check ((state = 'failed') = (problem is not null))
    );
    create table cards (
      id text primary key,
      digits text not null check (digits ~ '^[0-9]{4}$'),
      account text not null unique,
      entity_id text not null references entities,
      holder_id text not null references people,
      kind text not null check (kind in ('company', 'purchasing')),
      currency char(3) not null,
      label text not null
    );
    create index cards_holder on cards (holder_id);
    create table statements (
      id bigint generated always as identity primary key,
      source text not null check (source in ('feed', 'file')),
      name text not null,
      sha256 text not null check (length(sha256) = 64),
      position integer not null,
      format text not null check (format in ('camt.053', 'OFX', 'MT940', 'CSV')),
      card_id text references cards,
      currency char(3),
      from_date date,
      to_date date,
      opening bigint,
      closing bigint,
      entries integer not null,
      added integer not null,
      state text not null check (state in ('imported', 'refused')),
      says text,
      by_id text references people,
      at timestamptz not null,
      original bytea not null,
      check (state = 'refused' or card_id is not null)
    );
    create unique index statements_once on statements (sha256, position) where state = 'imported';
    create index statements_card on statements (card_id, to_date);
    create index statements_name on statements (name) where source = 'feed';
    create table charges (
      id bigint generated always as identity primary key,
      card_id text not null references cards,
      reference text,
      booked_on date not null,
      purchased_on date not null,
      amount bigint not null,
      currency char(3) not null,
      settled_amount bigint not null,
      settled_currency char(3) not null,
      merchant text not null,
      country text,
      category_code text check (category_code ~ '^[0-9]{4}$'),
      check (sign(amount) = sign(settled_amount))
    );
    create unique index charges_reference on charges (card_id, reference) where reference is not null;
    create index charges_card on charges (card_id, booked_on);
    create table statement_charges (
      statement_id bigint not null references statements,
      charge_id bigint not null references charges,
      primary key (statement_id, charge_id)
    );
    create index statement_charges_charge on statement_charges (charge_id);
    create table charge_marks (
      charge_id bigint primary key references charges,
      state text not null check (state in ('unmarked', 'claimed already')),
      revision integer not null default 1,
      reason text,
      check ((state = 'claimed already') = (coalesce(length(reason), 0) > 0))
    );
    create table card_months (
      card_id text not null references cards,
      month char(7) not null check (month ~ '^[0-9]{4}-[0-9]{2}$'),
      state text not null check (state in ('open', 'closed')),
      revision integer not null default 1,
      closed_by text references people,
      closed_at timestamptz,
      primary key (card_id, month),
      check ((state = 'closed') = (closed_by is not null and closed_at is not null))
    );
    create table csv_mappings (
      columns text primary key,
      mapping jsonb not null,
      by_id text not null references people,
      at timestamptz not null
    );
    create table feed_checks (
      source text primary key,
      at timestamptz not null,
      says text
    );

    create function only_name_a_charge() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if tg_op = 'UPDATE' and old.reference is null and to_jsonb(old) - 'reference' = to_jsonb(new) - 'reference' then
        return new;
      end if;
      raise exception 'what the bank said of a charge cannot be changed' using errcode = 'restrict_violation';
    end $$;
    create trigger charges_immutable before update or delete on charges for each row execute function only_name_a_charge();
    create trigger charges_no_truncate before truncate on charges for each statement execute function refuse_change();
    create trigger statements_immutable before update or delete on statements for each row execute function refuse_change();
    create function lock_card(wanted text) returns void language sql security definer set search_path = pg_catalog, public, pg_temp as $$
      select 1 from cards where id = wanted for update
    $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table feed_checks, csv_mappings, card_months, charge_marks, statement_charges, charges, statements, cards, readings,
      receipts, receipt_pages, receipt_files;
    drop function only_name_a_charge, lock_card;
  `);
}
