import type { Knex } from 'knex';

const SAFE = 'set search_path = pg_catalog, public, pg_temp';

/**
 * The ledger of every source: journals with their rows, what is open on control accounts, tax with its bases, budget
 * movements. post_journal is the only way in. What must never happen is refused here: an unbalanced journal, a row added
 * later, a second live journal of a source, a posting outside an open period, a reversal that is not the mirror of what it
 * reverses, a control account that moves without its open items, a change to anything posted.
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
      purpose text not null check (purpose in ('claim', 'advance payout', 'advance returned', 'payment', 'card payment',
        'accrual', 'revaluation', 'reclassification', 'reversal')),
      source_kind text not null,
      source_id text not null,
      run_id bigint,
      reverses bigint unique references journals,
      corrects bigint references journals,
      undone_on date,
      live boolean not null,
      reason text,
      posted_by text not null references people,
      posted_at timestamptz not null,
      made_in xid8 not null default pg_current_xact_id(),
      hash text not null unique check (hash ~ '^[0-9a-f]{64}$'),
      document jsonb,
      book_hash text references books,
      foreign key (entity_id, period_id) references periods,
      check ((purpose = 'reversal') = (reverses is not null)),
      check (purpose <> 'reversal' or not live),
      check (purpose not in ('reversal', 'reclassification') or coalesce(length(reason), 0) > 0),
      check ((purpose in ('accrual', 'revaluation')) = (undone_on is not null)),
      check (undone_on > date),
      check ((purpose = 'claim') = (document is not null and book_hash is not null))
    );
    create unique index journals_one_live on journals (source_kind, source_id, purpose) where live;
    create index journals_source on journals (source_kind, source_id);
    create index journals_newest on journals (entity_id, id desc);
    create index journals_corrects on journals (corrects) where corrects is not null;
    create table journal_rows (
      journal_id bigint not null references journals,
      position integer not null check (position >= 1),
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
    create table tax_rows (
      journal_id bigint not null references journals,
      position integer not null,
      code text not null,
      component text,
      date date not null,
      base bigint not null,
      tax bigint not null,
      recoverable bigint not null,
      line_id text not null,
      item_id text,
      primary key (journal_id, position)
    );
    create index tax_rows_code on tax_rows (code, component);

    create table open_items (
      id bigint generated always as identity primary key,
      kind text not null check (kind in ('payable', 'receivable', 'staff advance', 'card clearing', 'central clearing')),
      entity_id text not null references entities,
      account text not null references accounts,
      currency char(3) not null,
      person_id text references people,
      source_kind text not null,
      source_id text not null,
      amount bigint not null default 0,
      ledger_amount bigint not null default 0,
      unique (kind, entity_id, account, currency, source_kind, source_id),
      check ((kind in ('payable', 'receivable', 'staff advance')) <= (person_id is not null))
    );
    create index open_items_person on open_items (person_id);
    create index open_items_source on open_items (source_kind, source_id);
    create table open_item_movements (
      journal_id bigint not null references journals,
      position integer not null,
      item_id bigint not null references open_items,
      amount bigint not null,
      ledger_amount bigint not null,
      primary key (journal_id, position)
    );
    create index open_item_movements_item on open_item_movements (item_id);

    create table budget_movements (
      id bigint generated always as identity primary key,
      budget_id bigint not null references budgets,
      stage text not null check (stage in ('reserved', 'cleared', 'posted')),
      amount bigint not null check (amount <> 0),
      source_kind text not null,
      source_id text not null,
      at timestamptz not null
    );
    create index budget_movements_source on budget_movements (source_kind, source_id);
    create index budget_movements_budget on budget_movements (budget_id);

    create function move_open_item() returns trigger language plpgsql security definer ${SAFE} as $$
    begin
      update open_items set amount = amount + new.amount, ledger_amount = ledger_amount + new.ledger_amount where id = new.item_id;
      return null;
    end $$;
    create trigger open_item_movements_total after insert on open_item_movements for each row execute function move_open_item();
    create function move_budget() returns trigger language plpgsql security definer ${SAFE} as $$
    begin
      update budgets set
        reserved = reserved + case new.stage when 'reserved' then new.amount else 0 end,
        cleared = cleared + case new.stage when 'cleared' then new.amount else 0 end,
        posted = posted + case new.stage when 'posted' then new.amount else 0 end
      where id = new.budget_id;
      return null;
    end $$;
    create trigger budget_movements_total after insert on budget_movements for each row execute function move_budget();

    ${['journal_rows', 'tax_rows', 'open_item_movements', 'budget_movements']
      .map(
        (
          table,
        ) => `create trigger ${table}_immutable before update or delete on ${table} for each row execute function refuse_change();
    create trigger ${table}_no_truncate before truncate on ${table} for each statement execute function refuse_change();`,
      )
      .join('\n    ')}
    create trigger journals_no_delete before delete on journals for each row execute function refuse_change();
    create trigger journals_no_truncate before truncate on journals for each statement execute function refuse_change();

    create function only_end_a_journal() returns trigger language plpgsql ${SAFE} as $$
    begin
      if old.live and not new.live and to_jsonb(old) - 'live' = to_jsonb(new) - 'live'
         and exists (select 1 from journals r where r.reverses = old.id and r.made_in = pg_current_xact_id()) then
        return new;
      end if;
      raise exception 'a posted journal cannot be changed' using errcode = 'restrict_violation';
    end $$;
    create trigger journals_immutable before update on journals for each row execute function only_end_a_journal();

    create function journal_begins() returns trigger language plpgsql security definer ${SAFE} as $$
    begin
      new.made_in := pg_current_xact_id();
      perform 1 from periods p where p.entity_id = new.entity_id and p.id = new.period_id and p.state = 'open'
        and new.date between p.from_date and p.to_date for share;
      if not found then
        raise exception 'period % of % is not open on %', new.period_id, new.entity_id, new.date using errcode = 'EB001';
      end if;
      if new.date > (now() at time zone (select time_zone from entities where id = new.entity_id))::date then
        raise exception 'journal % is dated in the future', new.number using errcode = 'EB005';
      end if;
      return new;
    end $$;
    create trigger journals_begin before insert on journals for each row execute function journal_begins();
    create function journal_ends_its_mirror() returns trigger language plpgsql security definer ${SAFE} as $$
    begin
      if new.reverses is not null then
        update journals set live = false where id = new.reverses;
      end if;
      return null;
    end $$;
    create trigger journals_end_mirror after insert on journals for each row execute function journal_ends_its_mirror();

    create function rows_belong_to_a_journal_being_made() returns trigger language plpgsql ${SAFE} as $$
    begin
      if not exists (select 1 from journals j where j.id = new.journal_id and j.made_in = pg_current_xact_id()) then
        raise exception 'rows can be added only while their journal is made' using errcode = 'restrict_violation';
      end if;
      return new;
    end $$;
    ${['journal_rows', 'tax_rows', 'open_item_movements']
      .map(
        (table) =>
          `create trigger ${table}_with_journal before insert on ${table} for each row execute function rows_belong_to_a_journal_being_made();`,
      )
      .join('\n    ')}

    create function refuse_unbalanced() returns trigger language plpgsql security definer ${SAFE} as $$
    declare
      checked bigint := case tg_table_name when 'journals' then (to_jsonb(new)->>'id')::bigint else (to_jsonb(new)->>'journal_id')::bigint end;
      difference bigint;
      rows integer;
    begin
      select coalesce(sum(debit - credit), 0), count(*) into difference, rows from journal_rows where journal_id = checked;
      if difference <> 0 or rows = 0 then
        raise exception 'journal % is not balanced: % rows, difference %', checked, rows, difference using errcode = 'EB002';
      end if;
      return null;
    end $$;
    create constraint trigger journals_balanced after insert on journals deferrable initially deferred
      for each row execute function refuse_unbalanced();
    create constraint trigger journal_rows_balanced after insert on journal_rows deferrable initially deferred
      for each row execute function refuse_unbalanced();

    create function refuse_other_mirror() returns trigger language plpgsql security definer ${SAFE} as $$
    begin
      if new.reverses is null then return null; end if;
      if not exists (select 1 from journals o where o.id = new.reverses and o.entity_id = new.entity_id and o.currency = new.currency
            and o.source_kind = new.source_kind and o.source_id = new.source_id and o.date <= new.date and o.purpose <> 'reversal')
         or exists (
           (select position, account, coding, debit, credit, currency, amount, line_id, item_id, share, tax_code from journal_rows where journal_id = new.reverses
            except select position, account, coding, credit, debit, currency, -amount, line_id, item_id, share, tax_code from journal_rows where journal_id = new.id)
           union all
           (select position, account, coding, credit, debit, currency, -amount, line_id, item_id, share, tax_code from journal_rows where journal_id = new.id
            except select position, account, coding, debit, credit, currency, amount, line_id, item_id, share, tax_code from journal_rows where journal_id = new.reverses)) then
        raise exception 'journal % does not mirror what it reverses', new.number using errcode = 'EB003';
      end if;
      return null;
    end $$;
    create constraint trigger journals_mirror after insert on journals deferrable initially deferred
      for each row execute function refuse_other_mirror();

    create function control_accounts(entity text) returns setof text language sql stable ${SAFE} as $$
      select distinct a.value from entity_terms t cross join lateral (
        select t.accounts ->> key as value from unnest(array['claimantPayable', 'supplierPayable', 'cardClearing', 'centralClearing', 'staffAdvances', 'staffReceivable']) key
        union all select value from jsonb_each_text(t.cards)) a
      where t.entity_id = entity and a.value is not null
    $$;
    create function refuse_loose_control() returns trigger language plpgsql security definer ${SAFE} as $$
    declare
      loose text;
      checked bigint := case tg_table_name when 'journals' then (to_jsonb(new)->>'id')::bigint else (to_jsonb(new)->>'journal_id')::bigint end;
      entity text;
    begin
      select entity_id into entity from journals where id = checked;
      select coalesce(r.account, m.account) into loose from
        (select account, sum(debit - credit) as moved from journal_rows
          where journal_id = checked and account in (select control_accounts(entity)) group by 1) r
        full join (select i.account, sum(x.ledger_amount) as moved from open_item_movements x join open_items i on i.id = x.item_id
          where x.journal_id = checked and i.entity_id = entity group by 1) m on m.account = r.account
        where coalesce(r.moved, 0) <> coalesce(m.moved, 0) limit 1;
      if loose is not null then
        raise exception 'account % moves without its open items', loose using errcode = 'EB004';
      end if;
      return null;
    end $$;
    create constraint trigger journals_open_items after insert on journals deferrable initially deferred
      for each row execute function refuse_loose_control();
    create constraint trigger open_item_movements_agree after insert on open_item_movements deferrable initially deferred
      for each row execute function refuse_loose_control();

    create function next_journal_number(entity text) returns text language plpgsql security definer ${SAFE} as $$
    declare taken integer;
    begin
      insert into journal_numbers as n (entity_id, last) values (entity, 1)
        on conflict (entity_id) do update set last = n.last + 1 returning last into taken;
      return entity || '-' || lpad(taken::text, 6, '0');
    end $$;

    create function post_journal(head jsonb, rows jsonb, movements jsonb, taxes jsonb) returns bigint
    language plpgsql security definer ${SAFE} as $$
    declare made bigint;
    begin
      insert into journals (number, entity_id, currency, date, period_id, purpose, source_kind, source_id, run_id, reverses, corrects,
          undone_on, live, reason, posted_by, posted_at, hash, document, book_hash)
        select number, entity_id, currency, date, period_id, purpose, source_kind, source_id, run_id, reverses, corrects,
          undone_on, live, reason, posted_by, posted_at, hash, document, book_hash
        from jsonb_populate_record(null::journals, head) returning id into made;
      insert into journal_rows (journal_id, position, account, coding, debit, credit, currency, amount, line_id, item_id, share, tax_code, text)
        select made, position, account, coding, debit, credit, currency, amount, line_id, item_id, share, tax_code, text
        from jsonb_populate_recordset(null::journal_rows, rows);
      insert into tax_rows (journal_id, position, code, component, date, base, tax, recoverable, line_id, item_id)
        select made, position, code, component, date, base, tax, recoverable, line_id, item_id
        from jsonb_populate_recordset(null::tax_rows, taxes);
      insert into open_items (kind, entity_id, account, currency, person_id, source_kind, source_id)
        select distinct m.kind, head ->> 'entity_id', m.account, m.currency, m.person_id, m.source_kind, m.source_id
        from jsonb_populate_recordset(null::open_items, movements) m order by 1, 3, 4, 6, 7
        on conflict do nothing;
      insert into open_item_movements (journal_id, position, item_id, amount, ledger_amount)
        select made, (m.entry ->> 'position')::integer, i.id, (m.entry ->> 'amount')::bigint, (m.entry ->> 'ledger_amount')::bigint
        from jsonb_array_elements(movements) m(entry)
        join open_items i on i.kind = m.entry ->> 'kind' and i.entity_id = head ->> 'entity_id' and i.account = m.entry ->> 'account'
          and i.currency = m.entry ->> 'currency' and i.source_kind = m.entry ->> 'source_kind' and i.source_id = m.entry ->> 'source_id'
        order by i.id;
      return made;
    end $$;
    create function lock_open_items(kind_wanted text, source_kind_wanted text, ids text[]) returns void
    language sql security definer ${SAFE} as $$
      select 1 from open_items where kind = kind_wanted and source_kind = source_kind_wanted and source_id = any(ids) order by id for update
    $$;
    create function lock_budgets(ids bigint[]) returns void language sql security definer ${SAFE} as $$
      select 1 from budgets where id = any(ids) order by id for update
    $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table budget_movements, open_item_movements, open_items, tax_rows, journal_numbers, journal_rows, journals;
    drop function move_open_item, move_budget, only_end_a_journal, journal_begins, journal_ends_its_mirror,
      rows_belong_to_a_journal_being_made, refuse_unbalanced, refuse_other_mirror, control_accounts, refuse_loose_control,
      next_journal_number, post_journal, lock_open_items, lock_budgets;
  `);
}
