import type { Knex } from 'knex';

/** Claims with their versions, lines, items, shares, taxes and evidence; what was computed of them. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table receipts (
      id bigint generated always as identity primary key,
      owner_id text not null references people,
      sha256 text not null check (length(sha256) = 64),
      added_at timestamptz not null,
      amount bigint,
      currency char(3),
      date date,
      merchant text,
      tax_number text,
      check ((amount is null) = (currency is null)),
      unique (owner_id, sha256)
    );
    create index receipts_sha256 on receipts (sha256);
    create table receipt_files (
      sha256 text primary key,
      original bytea not null,
      original_type text not null,
      view bytea not null,
      view_type text not null,
      width integer not null,
      height integer not null
    );
    alter table receipts add foreign key (sha256) references receipt_files;

    create table advances (
      id text primary key,
      person_id text not null references people,
      entity_id text not null references entities,
      currency char(3) not null,
      purpose text not null,
      paid_on date not null,
      due_by date not null
    );

    create table claims (
      id bigint generated always as identity primary key,
      number text not null unique,
      version integer not null default 1 check (version >= 1),
      revision integer not null default 1 check (revision >= 1),
      entity_id text not null references entities,
      claimant_id text not null references people,
      preparer_id text not null references people,
      approver_id text references people,
      currency char(3) not null,
      state text not null check (state in ('draft', 'with approver', 'in review', 'cleared', 'posted', 'paid', 'returned',
        'declined', 'withdrawn', 'reversed', 'part paid', 'payment rejected')),
      purpose text not null,
      trip_from date,
      trip_to date,
      submitted_on date,
      coding jsonb not null default '{}',
      cleared_by text references people,
      hold_reason text,
      hold_until date,
      to_pay bigint,
      at_risk bigint not null default 0,
      ties jsonb not null default '{}',
      stops integer not null default 0,
      asks integer not null default 0,
      attention integer not null default 0,
      check ((hold_reason is null) = (hold_until is null)),
      check ((state in ('cleared', 'posted', 'paid', 'part paid', 'payment rejected')) <= (cleared_by is not null)),
      check (cleared_by is null or cleared_by <> claimant_id)
    );
    create index claims_queue on claims (state, attention desc, submitted_on, id);
    create index claims_claimant on claims (claimant_id, id desc);

    create table claim_versions (
      claim_id bigint not null references claims,
      version integer not null,
      submitted_at timestamptz,
      submitted jsonb,
      primary key (claim_id, version)
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
      coding jsonb not null default '{}',
      split_by text check (split_by in ('percent', 'amount', 'weight', 'equal')),
      primary key (claim_id, version, id),
      foreign key (claim_id, version) references claim_versions,
      check ((rate_kind = 'own') = (rate_value is not null)),
      check ((rate_kind = 'card') = (settled_amount is not null and settled_currency is not null)),
      check (rate_kind <> 'card' or paid_by = 'card'),
      check (rate_kind <> 'own' or paid_by = 'own'),
      check (not personal or paid_by = 'card')
    );
    create index lines_receipt on lines (receipt_id);
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
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      item_id text,
      position integer not null,
      code text not null,
      gross bigint,
      tax bigint,
      unique nulls not distinct (claim_id, version, line_id, item_id, position),
      foreign key (claim_id, version, line_id) references lines on delete cascade,
      foreign key (claim_id, version, line_id, item_id) references items on delete cascade
    );
    create table shares (
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      item_id text,
      position integer not null,
      coding jsonb not null default '{}',
      value text,
      unique nulls not distinct (claim_id, version, line_id, item_id, position),
      foreign key (claim_id, version, line_id) references lines on delete cascade,
      foreign key (claim_id, version, line_id, item_id) references items on delete cascade
    );

    create table assessments (
      claim_id bigint not null,
      version integer not null,
      revision integer not null,
      document jsonb not null,
      result jsonb not null,
      primary key (claim_id, version),
      foreign key (claim_id, version) references claim_versions
    );
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
      reason text,
      by_id text not null references people,
      at timestamptz not null,
      primary key (claim_id, version, line_id, kind),
      foreign key (claim_id, version, line_id) references lines,
      check (mark <> 'waived' or length(reason) > 0)
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
      foreign key (claim_id, version, line_id) references lines
    );
    create index queries_claim on queries (claim_id, version);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`drop table queries, tie_marks, findings, assessments, shares, tax_entries, items, lines, claim_advances,
    claim_versions, claims, advances, receipts, receipt_files`);
}
