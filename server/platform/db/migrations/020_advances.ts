import type { Knex } from 'knex';

const ROLE = 'ebbet_app';

/**
 * Advances as people ask for them: a draft with its kind, days and plan, what was asked for beside what was granted, why an
 * exception is wanted; the payout and what was given back, each with its journal and its proof. Rules about advances are data.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create sequence advance_numbers start 201;
    alter table advances
      drop constraint advances_state_check,
      drop constraint advances_check,
      alter column requested_on drop not null,
      add column kind text not null default 'trip' check (kind in ('trip', 'purchases', 'float')),
      add column trip_from date,
      add column trip_to date,
      add column plan_id bigint references plans,
      add column requested bigint check (requested > 0),
      add column exception text,
      add column problems jsonb not null default '[]' check (jsonb_typeof(problems) = 'array');
    update advances set requested = amount;
    alter table advances
      alter column requested set not null,
      alter column kind drop default,
      add check (state in ('draft', 'requested', 'in review', 'to pay out', 'paid out', 'settled', 'declined', 'withdrawn')),
      add check ((state in ('to pay out', 'paid out', 'settled')) <= (due_by is not null)),
      add check ((state in ('draft', 'withdrawn')) or requested_on is not null),
      add check (amount <= requested),
      add check (trip_from <= trip_to);
    create index advances_person on advances (person_id, id);
    create index advances_state on advances (state);
    create index advances_plan on advances (plan_id) where plan_id is not null;

    create table advance_payments (
      id bigint generated always as identity primary key,
      advance_id text not null references advances,
      kind text not null check (kind in ('payout', 'return')),
      date date not null,
      amount bigint not null check (amount > 0),
      bank bigint not null check (bank > 0),
      account text not null references accounts,
      reference text,
      journal_id bigint not null unique references journals,
      by_id text not null references people,
      at timestamptz not null
    );
    create unique index advance_payments_one_payout on advance_payments (advance_id) where kind = 'payout';
    create index advance_payments_advance on advance_payments (advance_id, id);

    insert into advance_payments (advance_id, kind, date, amount, bank, account, journal_id, by_id, at)
      select a.id, 'payout', j.date, a.amount, r.credit, r.account, j.id, j.posted_by, j.posted_at from advances a
        join journals j on j.source_kind = 'advance' and j.source_id = a.id and j.purpose = 'advance payout'
        join journal_rows r on r.journal_id = j.id and r.credit > 0;

    alter table attachments
      add column advance_id text references advances,
      add column payment_id bigint references advance_payments,
      drop constraint attachments_check,
      add check (num_nonnulls(claim_id, plan_id, booking_id, advance_id, payment_id) = 1);
    create index attachments_advance on attachments (advance_id) where advance_id is not null;
    create index attachments_payment on attachments (payment_id) where payment_id is not null;

    create table advance_rules (
      row_id bigint generated always as identity primary key,
      id text not null,
      rule jsonb not null,
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      exclude using gist (id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    grant usage on sequence advance_numbers to ${ROLE};
    grant select, insert on advance_payments, advance_rules to ${ROLE};
    grant update (valid_to) on advance_rules to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table advance_rules;
    delete from attachments where advance_id is not null or payment_id is not null;
    alter table attachments drop column advance_id, drop column payment_id, add check (num_nonnulls(claim_id, plan_id, booking_id) = 1);
    drop table advance_payments;
    delete from approval_needs where record_kind = 'advance' and record_id in (select id from advances where requested_on is null);
    delete from advances where requested_on is null;
    alter table advances drop column kind, drop column trip_from, drop column trip_to, drop column plan_id, drop column requested,
      drop column exception, drop column problems, alter column requested_on set not null,
      add check (state in ('requested', 'in review', 'to pay out', 'paid out', 'settled', 'declined', 'withdrawn')),
      add check ((state in ('to pay out', 'paid out', 'settled')) <= (due_by is not null));
    drop index advances_person, advances_state;
    drop sequence advance_numbers;
  `);
}
