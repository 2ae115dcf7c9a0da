import type { Knex } from 'knex';

const BY_PART = `
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      item_id text,
      position integer not null,
      unique nulls not distinct (claim_id, version, line_id, item_id, position),
      foreign key (claim_id, version, line_id) references lines on delete cascade,
      foreign key (claim_id, version, line_id, item_id) references items on delete cascade`;

/**
 * Claims with their versions, lines, items, shares and taxes; what was computed of them, and from what. A claim in
 * preparation has one version that may change; a submitted one is frozen in claim_versions.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table advances (
      id text primary key,
      revision integer not null default 1,
      state text not null check (state in ('requested', 'in review', 'to pay out', 'paid out', 'settled', 'declined', 'withdrawn')),
      person_id text not null references people,
      approver_id text references people,
      entity_id text not null references entities,
      currency char(3) not null,
      amount bigint not null check (amount > 0),
      purpose text not null,
      requested_on date not null,
      due_by date,
      check ((state in ('to pay out', 'paid out', 'settled')) <= (due_by is not null))
    );
    create table claims (
      id bigint generated always as identity primary key,
      number text not null unique,
      version integer not null default 1 check (version >= 1),
      submitted_version integer check (submitted_version between 1 and version),
      revision integer not null default 1 check (revision >= 1),
      entity_id text not null references entities,
      claimant_id text not null references people,
      preparer_id text not null references people,
      approver_id text references people,
      currency char(3) not null,
      state text not null check (state in ('draft', 'with approver', 'in review', 'cleared', 'posted', 'part paid', 'paid',
        'payment rejected', 'returned', 'declined', 'withdrawn', 'reversed')),
      purpose text not null,
      trip_from date,
      trip_to date,
      begun_on date not null,
      submitted_on date,
      coding jsonb not null default '{}',
      plan jsonb,
      cleared_by text references people,
      hold_reason text,
      hold_until date,
      to_pay bigint,
      at_risk bigint not null default 0,
      ties jsonb not null default '{}',
      stops integer not null default 0,
      asks integer not null default 0,
      priority bigint not null default 0,
      search text not null default '',
      check ((hold_reason is null) = (hold_until is null)),
      check ((state in ('cleared', 'posted', 'paid', 'part paid', 'payment rejected')) <= (cleared_by is not null)),
      check (cleared_by is null or cleared_by not in (claimant_id, preparer_id)),
      check ((state = 'draft') or (submitted_version is not null and submitted_on is not null))
    );
    create index claims_queue on claims (state, priority, submitted_on, id) where submitted_version is not null;
    create index claims_claimant on claims (claimant_id, id desc);
    create index claims_preparer on claims (preparer_id, id desc);
    create index claims_search on claims using gin (search gin_trgm_ops);
    create sequence claim_numbers start 1001;

    create table claim_counts (
      state text not null,
      entity_id text not null,
      count bigint not null,
      primary key (state, entity_id)
    );
    create function count_claims() returns trigger language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    begin
      insert into claim_counts as c (state, entity_id, count)
        select x.state, x.entity_id, sum(x.n) from (
          select new.state, new.entity_id, 1 as n where tg_op <> 'DELETE'
          union all select old.state, old.entity_id, -1 where tg_op <> 'INSERT') x
        group by 1, 2 having sum(x.n) <> 0 order by 1, 2
        on conflict (state, entity_id) do update set count = c.count + excluded.count;
      return null;
    end $$;
    create constraint trigger claims_counted after insert or delete or update of state on claims
      deferrable initially deferred for each row execute function count_claims();

    create table claim_versions (
      claim_id bigint not null references claims,
      version integer not null,
      submitted_at timestamptz,
      submitted jsonb,
      primary key (claim_id, version),
      check ((submitted_at is null) = (submitted is null))
    );
    create table claim_advances (
      claim_id bigint not null,
      version integer not null,
      position integer not null,
      advance_id text not null references advances,
      up_to bigint check (up_to >= 0),
      primary key (claim_id, version, advance_id),
      foreign key (claim_id, version) references claim_versions
    );
    create table lines (
      claim_id bigint not null,
      version integer not null,
      id text not null,
      position integer not null,
      date date not null,
      category text,
      nights integer check (nights > 0),
      attendees jsonb,
      fields jsonb not null default '{}',
      paid_by text not null check (paid_by in ('own', 'card', 'central')),
      card text,
      amount bigint not null,
      currency char(3) not null,
      country text,
      merchant text,
      description text,
      personal boolean not null default false,
      rate_kind text not null default 'reference' check (rate_kind in ('reference', 'card', 'own')),
      rate_value numeric,
      settled_amount bigint,
      settled_currency char(3),
      receipt_id bigint references receipts,
      charge_id bigint references charges,
      before_pair jsonb,
      coding jsonb not null default '{}',
      split_by text check (split_by in ('percent', 'amount', 'weight', 'equal')),
      primary key (claim_id, version, id),
      foreign key (claim_id, version) references claim_versions,
      check ((rate_kind = 'own') = (rate_value is not null)),
      check ((rate_kind = 'card') = (settled_amount is not null and settled_currency is not null)),
      check (rate_kind <> 'card' or paid_by = 'card'),
      check (rate_kind <> 'own' or paid_by = 'own'),
      check (not personal or paid_by = 'card'),
      check (charge_id is null or paid_by = 'card')
    );
    create index lines_receipt on lines (receipt_id);
    create index lines_charge on lines (charge_id);
    create index lines_same on lines (currency, amount, date);
    create table items (
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      id text not null,
      position integer not null,
      category text,
      amount bigint not null,
      description text,
      personal boolean not null default false,
      coding jsonb not null default '{}',
      split_by text check (split_by in ('percent', 'amount', 'weight', 'equal')),
      primary key (claim_id, version, line_id, id),
      foreign key (claim_id, version, line_id) references lines on delete cascade
    );
    create table tax_entries (
      code text not null,
      gross bigint,
      tax bigint,
      ${BY_PART}
    );
    create table shares (
      coding jsonb not null default '{}',
      value text,
      ${BY_PART}
    );
    create table assessments (
      claim_id bigint not null,
      version integer not null,
      revision integer not null,
      assessed_at timestamptz not null,
      book_hash text not null references books,
      document jsonb not null,
      evidence jsonb not null,
      result jsonb not null,
      ties jsonb not null,
      primary key (claim_id, version),
      foreign key (claim_id, version) references claim_versions
    );
    create table assessment_uses (
      claim_id bigint not null references claims,
      key text not null,
      primary key (claim_id, key)
    );
    create index assessment_uses_key on assessment_uses (key);
    create table findings (
      claim_id bigint not null,
      version integer not null,
      position integer not null,
      code text not null,
      severity text not null check (severity in ('stop', 'ask', 'note')),
      line_id text,
      item_id text,
      says text not null,
      difference text,
      primary key (claim_id, version, position),
      foreign key (claim_id, version) references claim_versions
    );
    create table tie_marks (
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      kind text not null,
      mark text not null check (mark in ('seen', 'waived')),
      about text not null check (length(about) = 64),
      reason text,
      by_id text not null references people,
      at timestamptz not null,
      primary key (claim_id, version, line_id, kind),
      foreign key (claim_id, version, line_id) references lines,
      check (mark <> 'waived' or coalesce(length(reason), 0) > 0)
    );
    create table queries (
      id bigint generated always as identity primary key,
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      kind text,
      text text not null check (length(text) > 0),
      by_id text not null references people,
      at timestamptz not null,
      sent_at timestamptz,
      foreign key (claim_id, version, line_id) references lines
    );
    create index queries_claim on queries (claim_id, version);

    create function only_submit_a_version() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if tg_op = 'UPDATE' and old.submitted is null and old.claim_id = new.claim_id and old.version = new.version then
        return new;
      end if;
      raise exception 'a submitted version cannot be changed' using errcode = 'restrict_violation';
    end $$;
    create trigger claim_versions_frozen before update or delete on claim_versions for each row execute function only_submit_a_version();
    create trigger claim_versions_no_truncate before truncate on claim_versions for each statement execute function refuse_change();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table queries, tie_marks, findings, assessment_uses, assessments, shares, tax_entries, items, lines, claim_advances,
      claim_versions, claim_counts, claims, advances;
    drop sequence claim_numbers;
    drop function only_submit_a_version, count_claims;
  `);
}
