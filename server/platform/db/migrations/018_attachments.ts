import type { Knex } from 'knex';

/**
 * Files that stand beside a claim, a plan or a booking of one, as they came; and bookings: what was offered for a plan, what
 * was taken, and how it is paid. A file of a claim belongs to versions, from the one it was added to.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table plan_bookings (
      id bigint generated always as identity primary key,
      plan_id bigint not null references plans,
      estimate text,
      what text not null check (length(what) > 0),
      date date not null,
      options jsonb not null check (jsonb_typeof(options) = 'array' and jsonb_array_length(options) between 1 and 20),
      chosen integer check (chosen >= 0 and chosen < jsonb_array_length(options)),
      paid_by text not null check (paid_by in ('card', 'central')),
      confirmation text,
      by_id text not null references people,
      at timestamptz not null
    );
    create index plan_bookings_plan on plan_bookings (plan_id, id);
    create table attachments (
      id bigint generated always as identity primary key,
      claim_id bigint references claims,
      plan_id bigint references plans,
      booking_id bigint references plan_bookings on delete cascade,
      sha256 text not null references receipt_files,
      name text not null,
      by_id text not null references people,
      at timestamptz not null,
      added_in integer not null default 1,
      removed_in integer,
      check (num_nonnulls(claim_id, plan_id, booking_id) = 1),
      check (removed_in > added_in)
    );
    create index attachments_claim on attachments (claim_id) where claim_id is not null;
    create index attachments_plan on attachments (plan_id) where plan_id is not null;
    create index attachments_booking on attachments (booking_id) where booking_id is not null;
    grant select, insert, update, delete on plan_bookings, attachments to ebbet_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`drop table attachments, plan_bookings;`);
}
