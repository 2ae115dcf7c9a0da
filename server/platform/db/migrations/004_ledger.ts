import type { Knex } from 'knex';

/**
 * The ledger and the history, with what must never happen refused by the database itself: an unbalanced journal, a
 * second live posting of a claim version, a posting into a closed period, a change to what is posted or recorded.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table journals (
      id bigint generated always as identity primary key,
      number text not null unique,
      entity_id text not null references entities,
      currency char(3) not null,
      date date not null,
      period_id text not null,
      kind text not null check (kind in ('posting', 'reversal')),
      claim_id bigint not null,
      claim_version integer not null,
      reverses bigint unique references journals,
      live boolean not null,
      reason text,
      posted_by text not null references people,
      posted_at timestamptz not null,
      document jsonb,
      foreign key (claim_id, claim_version) references claim_versions,
      foreign key (entity_id, period_id) references periods,
      check ((kind = 'reversal') = (reverses is not null)),
      check (kind = 'posting' or not live),
      check (kind = 'reversal' or document is not null)
    );
    create unique index journals_one_live on journals (claim_id, claim_version) where live;
    create index journals_newest on journals (id desc);
    create index journals_claim on journals (claim_id);
    create table journal_rows (
      journal_id bigint not null references journals,
      position integer not null,
      account text not null references accounts,
      coding jsonb not null,
      debit bigint not null check (debit >= 0),
      credit bigint not null check (credit >= 0),
      currency char(3) not null,
      amount bigint not null,
      line_id text,
      item_id text,
      share integer,
      tax_code text,
      text text not null,
      primary key (journal_id, position),
      check ((debit = 0) <> (credit = 0))
    );
    create table journal_numbers (
      entity_id text primary key references entities,
      last integer not null
    );
    create table advance_movements (
      id bigint generated always as identity primary key,
      advance_id text not null references advances,
      kind text not null check (kind in ('paid out', 'accounted for', 'reversed')),
      journal_id bigint references journals,
      part bigint not null,
      ledger_part bigint not null,
      at timestamptz not null,
      check ((kind = 'paid out') = (journal_id is null))
    );
    create index advance_movements_advance on advance_movements (advance_id);
    create table idempotency_keys (
      key text not null,
      person_id text not null references people,
      act text not null,
      request_hash text not null,
      response jsonb not null,
      at timestamptz not null,
      primary key (person_id, act, key)
    );

    create table events (
      id bigint generated always as identity primary key,
      record_kind text not null,
      record_id bigint not null,
      seq integer not null check (seq >= 1),
      at timestamptz not null,
      actor_id text not null references people,
      kind text not null,
      facts jsonb not null,
      private_hash text,
      previous_hash text not null,
      hash text not null unique,
      unique (record_kind, record_id, seq)
    );
    create table event_words (
      event_id bigint primary key references events,
      salt text not null,
      words jsonb not null
    );

    create function refuse_change() returns trigger language plpgsql as $$
    begin
      raise exception '% of % is refused: it is history', lower(tg_op), tg_table_name using errcode = 'restrict_violation';
    end $$;
    create trigger events_append_only before update or delete on events for each row execute function refuse_change();
    create trigger events_no_truncate before truncate on events execute function refuse_change();
    create trigger journal_rows_immutable before update or delete on journal_rows for each row execute function refuse_change();
    create trigger journal_rows_no_truncate before truncate on journal_rows execute function refuse_change();
    create trigger journals_no_delete before delete on journals for each row execute function refuse_change();
    create trigger journals_no_truncate before truncate on journals execute function refuse_change();
    create trigger advance_movements_immutable before update or delete on advance_movements for each row execute function refuse_change();

    create function only_end_a_posting() returns trigger language plpgsql as $$
    begin
      if old.live and not new.live and exists (select 1 from journals r where r.reverses = old.id)
         and to_jsonb(old) - 'live' = to_jsonb(new) - 'live' then
        return new;
      end if;
      raise exception 'a posted journal cannot be changed' using errcode = 'restrict_violation';
    end $$;
    create trigger journals_immutable before update on journals for each row execute function only_end_a_posting();

    create function rows_belong_to_an_open_journal() returns trigger language plpgsql as $$
    begin
      if not exists (select 1 from journals j where j.id = new.journal_id and j.xmin = pg_current_xact_id()::xid) then
        raise exception 'rows can be added only while their journal is made' using errcode = 'restrict_violation';
      end if;
      return new;
    end $$;
    create trigger journal_rows_with_journal before insert on journal_rows
      for each row execute function rows_belong_to_an_open_journal();

    create function refuse_unbalanced() returns trigger language plpgsql as $$
    declare difference bigint; rows integer;
    begin
      select coalesce(sum(debit - credit), 0), count(*) into difference, rows from journal_rows where journal_id = new.id;
      if difference <> 0 or rows = 0 then
        raise exception 'journal % is not balanced: % rows, difference %', new.number, rows, difference using errcode = 'check_violation';
      end if;
      return null;
    end $$;
    create constraint trigger journals_balanced after insert on journals deferrable initially deferred
      for each row execute function refuse_unbalanced();

    create function refuse_closed_period() returns trigger language plpgsql security definer set search_path = public as $$
    begin
      perform 1 from periods p where p.entity_id = new.entity_id and p.id = new.period_id and p.state = 'open'
        and new.date between p.from_date and p.to_date for share;
      if not found then
        raise exception 'period % of % is not open on %', new.period_id, new.entity_id, new.date using errcode = 'check_violation';
      end if;
      return new;
    end $$;
    create function lock_advance(wanted text) returns void language sql security definer set search_path = public as $$
      select 1 from advances where id = wanted for update
    $$;
    create trigger journals_open_period before insert on journals for each row execute function refuse_closed_period();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table event_words, events, idempotency_keys, advance_movements, journal_numbers, journal_rows, journals;
    drop function refuse_change, only_end_a_posting, rows_belong_to_an_open_journal, refuse_unbalanced, refuse_closed_period, lock_advance;
  `);
}
