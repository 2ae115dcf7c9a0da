import type { Knex } from 'knex';

/**
 * The history: one hash chain a record. An event is added by append_event alone, which numbers it and computes its hash
 * in the database, so that no process can write a link that does not hold. Words that may be personal stand apart.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table events (
      id bigint generated always as identity primary key,
      record_kind text not null check (record_kind !~ '[\\n\\r]'),
      record_id text not null check (record_id !~ '[\\n\\r]'),
      seq integer not null check (seq >= 1),
      at timestamptz not null,
      actor_id text references people,
      kind text not null check (kind !~ '[\\n\\r]'),
      facts text not null check (facts ~ '^\\{.*\\}$' and facts !~ '[\\n\\r]'),
      about text check (about ~ '^[0-9a-f]{64}$'),
      private_hash text check (private_hash ~ '^[0-9a-f]{64}$'),
      previous_hash text not null,
      hash text not null unique,
      unique (record_kind, record_id, seq)
    );
    create table event_words (
      event_id bigint primary key references events,
      salt text not null,
      words jsonb not null
    );
    create table idempotency_keys (
      key text not null,
      person_id text not null references people,
      act text not null,
      request_hash text not null,
      response jsonb not null,
      at timestamptz not null,
      primary key (person_id, act, key)
    );

    create function refuse_change() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      raise exception '% of % is refused: it is history', lower(tg_op), tg_table_name using errcode = 'restrict_violation';
    end $$;
    create trigger events_append_only before update or delete on events for each row execute function refuse_change();
    create trigger events_no_truncate before truncate on events for each statement execute function refuse_change();

    create function append_event(kind_of_record text, record text, moment timestamptz, actor text, what text, said text,
      about_hash text, words_hash text, words_salt text, words_said jsonb)
    returns text language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    declare
      last record;
      number integer;
      previous text;
      computed text;
      event bigint;
    begin
      select e.seq, e.hash into last from events e where e.record_kind = kind_of_record and e.record_id = record order by e.seq desc limit 1;
      number := coalesce(last.seq, 0) + 1;
      previous := coalesce(last.hash, repeat('0', 64));
      computed := encode(sha256(convert_to(concat_ws(chr(10), 'ebbet-event/2', previous, kind_of_record, record, number,
        to_char(moment at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), coalesce(actor, ''), what,
        coalesce(about_hash, ''), coalesce(words_hash, ''), said), 'utf8')), 'hex');
      insert into events (record_kind, record_id, seq, at, actor_id, kind, facts, about, private_hash, previous_hash, hash)
        values (kind_of_record, record, number, date_trunc('milliseconds', moment), actor, what, said, about_hash, words_hash, previous, computed)
        returning id into event;
      if words_said is not null then
        insert into event_words (event_id, salt, words) values (event, words_salt, words_said);
      end if;
      return computed;
    end $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop function append_event;
    drop table idempotency_keys, event_words, events;
    drop function refuse_change;
  `);
}
