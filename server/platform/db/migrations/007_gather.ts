import type { Knex } from 'knex';

/** What is gathered before a claim is written: receipts with their pages and readings, cards, statements, charges. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table receipt_pages (
      sha256 text not null references receipt_files,
      page integer not null check (page >= 1),
      view bytea not null,
      view_type text not null,
      width integer not null,
      height integer not null,
      primary key (sha256, page)
    );
    insert into receipt_pages select sha256, 1, view, view_type, width, height from receipt_files;
    alter table receipt_files
      drop view, drop view_type, drop width, drop height,
      add kind text not null default 'picture' check (kind in ('picture', 'pdf', 'invoice', 'mail')),
      add pages integer not null default 1 check (pages >= 1),
      add likeness text check (likeness ~ '^[0-9a-f]{16}$');
    create index receipt_files_band_1 on receipt_files (substr(likeness, 1, 4)) where likeness is not null;
    create index receipt_files_band_2 on receipt_files (substr(likeness, 5, 4)) where likeness is not null;
    create index receipt_files_band_3 on receipt_files (substr(likeness, 9, 4)) where likeness is not null;
    create index receipt_files_band_4 on receipt_files (substr(likeness, 13, 4)) where likeness is not null;
    alter table receipts
      add name text not null default '',
      add came_in text,
      add card_digits text check (card_digits ~ '^[0-9]{4}$'),
      add taxes jsonb not null default '[]',
      add confirmed_at timestamptz,
      add removed_at timestamptz;
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
      id text primary key check (id ~ '^[0-9]{4}$'),
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
      mark text not null check (mark = 'claimed already'),
      reason text not null check (length(reason) > 0),
      by_id text not null references people,
      at timestamptz not null
    );
    create table card_months (
      card_id text not null references cards,
      month char(7) not null check (month ~ '^[0-9]{4}-[0-9]{2}$'),
      closed_by text not null references people,
      closed_at timestamptz not null,
      primary key (card_id, month)
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
    alter table categories add merchant_codes text[] not null default '{}';
    alter table lines add charge_id bigint references charges, add before_pair jsonb;
    alter table lines add check (charge_id is null or paid_by = 'card');
    create index lines_charge on lines (charge_id);
    create index lines_same on lines (currency, amount, date);
    create sequence claim_numbers start 1001;

    create function only_name_a_charge() returns trigger language plpgsql as $$
    begin
      if tg_op = 'UPDATE' and old.reference is null and to_jsonb(old) - 'reference' = to_jsonb(new) - 'reference' then
        return new;
      end if;
      raise exception 'what the bank said of a charge cannot be changed' using errcode = 'restrict_violation';
    end $$;
    create trigger charges_immutable before update or delete on charges for each row execute function only_name_a_charge();
    create trigger charges_no_truncate before truncate on charges execute function refuse_change();
    create trigger statements_immutable before update or delete on statements for each row execute function refuse_change();
    create function lock_card(wanted text) returns void language sql security definer set search_path = public as $$
      select 1 from cards where id = wanted for update
    $$;

    grant select on cards to ebbet_app;
    grant select, insert on receipt_pages, statements, statement_charges to ebbet_app;
    grant select, insert, update on charges, readings, card_months, csv_mappings, feed_checks to ebbet_app;
    grant delete on card_months to ebbet_app;
    grant select, insert, update, delete on charge_marks to ebbet_app;
    grant update on receipts to ebbet_app;
    grant insert on claims to ebbet_app;
    grant usage on sequence claim_numbers to ebbet_app;
    grant execute on function lock_card(text) to ebbet_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop sequence claim_numbers;
    drop index lines_same;
    alter table categories drop merchant_codes;
    alter table lines drop charge_id, drop before_pair;
    drop table feed_checks, csv_mappings, card_months, charge_marks, statement_charges, charges, statements, cards, readings;
    drop function only_name_a_charge, lock_card;
    alter table receipts drop name, drop came_in, drop card_digits, drop taxes, drop confirmed_at, drop removed_at;
    alter table receipt_files add view bytea, add view_type text, add width integer, add height integer,
      drop kind, drop pages, drop likeness;
    update receipt_files f set view = p.view, view_type = p.view_type, width = p.width, height = p.height
      from receipt_pages p where p.sha256 = f.sha256 and p.page = 1;
    alter table receipt_files alter view set not null, alter view_type set not null, alter width set not null, alter height set not null;
    drop table receipt_pages;
    revoke insert on claims from ebbet_app;
  `);
}
