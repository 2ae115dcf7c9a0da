import type { Knex } from 'knex';

const ROLE = 'ebbet_app';

/**
 * What people hear of: one row a person and event, with what it said then. Rows are the outbox of mail too: `mail` is how the
 * person wanted it when it happened, `mailed_at` when it went out. Every new row wakes whoever listens. An advance
 * remembers for which day somebody was reminded.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table people add column mail text not null default 'at once' check (mail in ('at once', 'daily', 'none')),
      add column digest_on date;
    grant update (mail, digest_on) on people to ${ROLE};
    alter table advances add column reminded_for date;

    create table messages (
      id bigint generated always as identity primary key,
      person_id text not null references people,
      hears_as text not null check (hears_as in ('maker', 'decider', 'reviewer')),
      instead_of text references people,
      record_kind text not null,
      record_id text not null,
      event text not null,
      by_id text references people,
      facts jsonb not null,
      at timestamptz not null,
      read_at timestamptz,
      mail text not null check (mail in ('at once', 'daily', 'none')),
      mailed_at timestamptz,
      mail_tries integer not null default 0,
      mail_after timestamptz
    );
    create index messages_person on messages (person_id, at desc, id desc);
    create index messages_unread on messages (person_id) where read_at is null;
    create index messages_to_mail on messages (mail, id) where mailed_at is null and mail <> 'none';
    grant select, insert, update on messages to ${ROLE};

    create function wake_listeners() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      perform pg_notify('messages', new.person_id);
      return null;
    end $$;
    create trigger messages_wake after insert on messages for each row execute function wake_listeners();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table messages;
    drop function wake_listeners();
    alter table advances drop column reminded_for;
    alter table people drop column mail, drop column digest_on;
  `);
}
