import type { Knex } from 'knex';
import { currencyCodes, minorUnits } from '../../../../core/numbers/minorUnits.ts';

const ROLE = 'ebbet_app';
const SAFE = 'security definer set search_path = pg_catalog, public, pg_temp';
const OF_ELEVEN = 'append_event(text, text, timestamptz, text, text, text, text, text, text, jsonb, text)';
const OF_TWELVE = OF_ELEVEN.replace(')', ', text)');
const OF_FOUR = 'post_journal(jsonb, jsonb, jsonb, jsonb)';
const OF_FIVE = OF_FOUR.replace(')', ', text)');
/** A function's signature with its parameters named. */
const named = (signature: string, parameters: string) => signature.slice(0, signature.indexOf('(')) + parameters;
const NEW = `open_session(varchar, text, timestamptz), make_token(text, text, text, text[], timestamptz, text),
      write_letter(text, text, timestamptz)`;

/** Each way in which a proof shows that it is somebody; `acts` is all of them. A new way is added here, as a function of its own. */
const WAYS = {
  acts_by_session: `select exists (select 1 from session_people p join sessions s on s.sid = p.sid
        where p.sid = proof and p.person_id = person and s.expire > now())`,
  acts_by_token: `select exists (select 1 from api_tokens t where t.hash = encode(sha256(convert_to(proof, 'utf8')), 'hex')
        and t.person_id = person and t.revoked_at is null)`,
  acts_by_run: `select exists (select 1 from clearing_runs r where r.proof_hash = encode(sha256(convert_to(proof, 'utf8')), 'hex')
        and r.person_id = person and r.ended_at is null)`,
} as const;
const ACTS = (body: string) => `
    create or replace function acts(person text, proof text) returns boolean language sql stable security definer
    set search_path = pg_catalog, public, pg_temp as $$ ${body} $$;`;
const WAY_NAMES = Object.keys(WAYS);

/**
 * Whose a session is, tokens and letters for a new password are written by functions that leave an event: who signs people in
 * without their password leaves that they signed in. An event is not dated before the one it follows, and carries a mark
 * by a key that is not in the database. A journal names a controller who shows that it is them, belongs to the entity of what it
 * is for, and its hash is computed here.
 */
export async function up(knex: Knex): Promise<void> {
  const currencies = currencyCodes.map((code) => `('${code}', ${minorUnits(code)})`).join(', ');
  await knex.raw(`
    create table session_people (
      sid varchar primary key references sessions on delete cascade,
      person_id text not null references people,
      since timestamptz not null
    );
    create index session_people_person on session_people (person_id);
    insert into session_people (sid, person_id, since)
      select s.sid, p.id, now() from sessions s join people p on p.id = s.sess ->> 'personId';
    grant select on session_people to ${ROLE};
    ${Object.entries(WAYS)
      .map(
        ([name, body]) => `create function ${name}(person text, proof text) returns boolean language sql stable
    set search_path = pg_catalog, public, pg_temp as $$ ${body} $$;`,
      )
      .join('\n    ')}
    revoke execute on function ${WAY_NAMES.map((name) => `${name}(text, text)`).join(', ')} from public;
    ${ACTS(`select ${WAY_NAMES.map((name) => `${name}(person, proof)`).join(' or ')}`)}
    create function open_session(session varchar, person text, moment timestamptz) returns void language plpgsql ${SAFE} as $$
    begin
      perform pg_advisory_xact_lock(hashtextextended('session ' || person, 3));
      insert into session_people (sid, person_id, since) values (session, person, moment);
      perform append_event('session', person, moment, person, 'signed in',
        '{"session":"' || left(encode(sha256(convert_to(session, 'utf8')), 'hex'), 16) || '"}', null, null, null, null);
    end $$;
    create function make_token(person text, named text, token_hash text, held text[], moment timestamptz, proof text) returns bigint
    language plpgsql ${SAFE} as $$
    declare made bigint;
    begin
      if session_user <> current_user and acts(person, proof) is not true then
        raise exception 'nobody shows that they are %', person using errcode = 'EB007';
      end if;
      insert into api_tokens (person_id, name, hash, roles, made_at) values (person, named, token_hash, held, moment) returning id into made;
      return made;
    end $$;
    create function write_letter(letter_hash text, person text, moment timestamptz) returns void language plpgsql ${SAFE} as $$
    begin
      perform pg_advisory_xact_lock(hashtextextended('sign-in ' || person, 2));
      insert into password_letters (hash, person_id, made_at) values (letter_hash, person, moment);
      perform append_event('sign-in', person, moment, null, 'letter written', '{}', null, null, null, null);
    end $$;
    -- a session that ends wakes the streams that were opened by it
    create function wake_ended() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      perform pg_notify('messages', old.person_id);
      return null;
    end $$;
    create trigger session_people_wake after delete on session_people for each row execute function wake_ended();
    grant execute on function acts(text, text) to ${ROLE};
    revoke insert, update on api_tokens, password_letters from ${ROLE};
    grant update (revoked_at) on api_tokens to ${ROLE};
    revoke execute on function ${NEW} from public;
    grant execute on function ${NEW} to ${ROLE};

    alter table events add column mark text check (mark ~ '^[0-9a-f]{64}$');
    create function ${named(
      OF_TWELVE,
      `(kind_of_record text, record text, moment timestamptz, actor text, what text, said text,
      about_hash text, words_hash text, words_salt text, words_said jsonb, proof text, marked text)`,
    )} returns text language plpgsql ${SAFE} as $$
    declare
      last timestamptz;
      computed text;
    begin
      if session_user <> current_user then
        select e.at into last from events e where e.record_kind = kind_of_record and e.record_id = record order by e.seq desc limit 1;
        -- clocks of several machines differ a little; a mark is of the moment that was given
        if moment < last - interval '5 minutes' then
          raise exception 'an event of % % would stand before the one it follows', kind_of_record, record using errcode = 'EB011';
        end if;
      end if;
      computed := append_event(kind_of_record, record, moment, actor, what, said, about_hash, words_hash, words_salt, words_said, proof);
      if marked is not null then
        perform set_mark(computed, marked);
      end if;
      return computed;
    end $$;
    create function only_mark() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if tg_op = 'UPDATE' and old.mark is null and old.made_in = pg_current_xact_id() and to_jsonb(old) - 'mark' = to_jsonb(new) - 'mark' then
        return new;
      end if;
      raise exception '% of % is refused: it is history', lower(tg_op), tg_table_name using errcode = 'restrict_violation';
    end $$;
    create function set_mark(of_event text, marked text) returns void language sql ${SAFE} as $$
      update events set mark = marked where hash = of_event
    $$;
    drop trigger events_append_only on events;
    create trigger events_append_only before update or delete on events for each row execute function only_mark();
    revoke execute on function ${OF_TWELVE}, set_mark(text, text) from public;
    revoke execute on function ${OF_ELEVEN} from ${ROLE};
    grant execute on function ${OF_TWELVE} to ${ROLE};

    create table currency_decimals (currency char(3) primary key, decimals integer not null);
    insert into currency_decimals (currency, decimals) values ${currencies};
    -- minor units as a decimal string with the decimals of the currency
    create function write_amount(minor numeric, of_currency text) returns text language sql stable
    set search_path = pg_catalog, public, pg_temp as $$
      select case when minor < 0 then '-' else '' end || case when decimals = 0 then digits
          else left(digits, -decimals) || '.' || right(digits, decimals) end
        from currency_decimals, lateral (select lpad(abs(minor)::text, greatest(length(abs(minor)::text), decimals + 1), '0') as digits) d
        where currency = of_currency
    $$;
    -- JSON with keys in order and without spaces, as core/numbers/canonical.ts writes it
    create function canonical_json(value jsonb) returns text language plpgsql immutable set search_path = pg_catalog, public, pg_temp as $$
    begin
      case jsonb_typeof(value)
        when 'object' then
          return '{' || coalesce((select string_agg(to_json(key)::text || ':' || canonical_json(entry), ',' order by key collate "C")
            from jsonb_each(value) as e(key, entry)), '') || '}';
        when 'array' then
          return '[' || coalesce((select string_agg(canonical_json(entry), ',' order by place)
            from jsonb_array_elements(value) with ordinality as e(entry, place)), '') || ']';
        else
          return value::text;
      end case;
    end $$;
    create function journal_hash(head jsonb, rows jsonb) returns text language sql stable set search_path = pg_catalog, public, pg_temp as $$
      select encode(sha256(convert_to(canonical_json(jsonb_build_object(
        'format', 'ebbet-journal/1', 'number', head -> 'number', 'entity', head -> 'entity_id', 'currency', head -> 'currency',
        'date', head -> 'date', 'purpose', head -> 'purpose', 'source', jsonb_build_object('kind', head -> 'source_kind', 'id', head -> 'source_id'),
        'reverses', (select number from journals where id = (head ->> 'reverses')::bigint),
        'corrects', (select number from journals where id = (head ->> 'corrects')::bigint),
        'rows', coalesce((select jsonb_agg(jsonb_build_object('position', r.position, 'account', r.account, 'coding', r.coding,
            'debit', write_amount(r.debit, head ->> 'currency'), 'credit', write_amount(r.credit, head ->> 'currency'),
            'currency', r.currency, 'amount', write_amount(r.amount, r.currency), 'line', r.line_id, 'item', r.item_id,
            'taxCode', r.tax_code, 'text', r.text) order by r.position)
          from jsonb_populate_recordset(null::journal_rows, rows) r), '[]'))), 'utf8')), 'hex')
    $$;
    create function ${named(OF_FIVE, '(head jsonb, rows jsonb, movements jsonb, taxes jsonb, proof text)')}
    returns table (id bigint, hash text) language plpgsql ${SAFE} as $$
    declare
      poster text := head ->> 'posted_by';
      entity text := head ->> 'entity_id';
      source text := head ->> 'source_id';
      found_entity text;
      computed text;
    begin
      if session_user <> current_user then
        if acts(poster, proof) is not true then
          raise exception 'nobody shows that they are %', poster using errcode = 'EB007';
        end if;
        if not exists (select 1 from person_roles r join entities e on e.id = entity where r.person_id = poster and r.role = 'controller'
            and (r.entity_id is null or r.entity_id = entity)
            and (now() at time zone e.time_zone)::date between coalesce(r.valid_from, '-infinity') and coalesce(r.valid_to, 'infinity')) then
          raise exception '% does not post for %', poster, entity using errcode = 'EB012';
        end if;
        select case head ->> 'source_kind'
          when 'claim' then (select c.entity_id from claims c where c.number = regexp_replace(source, '/[^/]*$', ''))
          when 'advance' then (select a.entity_id from advances a where a.id = source)
          when 'card' then (select c.entity_id from cards c where c.id = source)
          when 'entity' then (select e.id from entities e where e.id = source)
          when 'payment' then coalesce((select c.entity_id from claims c where c.number = regexp_replace(source, '/[^/]*/[^/]*$', '')),
            (select a.entity_id from advances a where a.id = regexp_replace(source, '/[^/]*$', '')))
          end into found_entity;
        if found_entity is distinct from entity then
          raise exception 'a journal of % is of no record of it', entity using errcode = 'EB012';
        end if;
      end if;
      computed := journal_hash(head, rows);
      return query select post_journal(head || jsonb_build_object('hash', computed), rows, movements, taxes), computed;
    end $$;
    revoke execute on function ${OF_FIVE}, write_amount(numeric, text), canonical_json(jsonb), journal_hash(jsonb, jsonb) from public;
    revoke execute on function ${OF_FOUR} from ${ROLE};
    grant execute on function ${OF_FIVE} to ${ROLE};

    -- long headings are no key: their hash is
    update csv_mappings set columns = encode(sha256(convert_to(columns, 'utf8')), 'hex');
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop function ${OF_FIVE};
    drop function journal_hash, canonical_json, write_amount;
    drop table currency_decimals;
    grant execute on function ${OF_FOUR} to ${ROLE};
    drop trigger events_append_only on events;
    create trigger events_append_only before update or delete on events for each row execute function refuse_change();
    drop function ${OF_TWELVE};
    drop function set_mark, only_mark;
    alter table events drop column mark;
    grant execute on function ${OF_ELEVEN} to ${ROLE};
    grant insert on password_letters to ${ROLE};
    grant insert, update on api_tokens to ${ROLE};
    drop function ${NEW};
    ${ACTS(`select exists (select 1 from sessions s where s.sid = proof and s.sess ->> 'personId' = person)
      or ${WAYS.acts_by_token.replace('select ', '')} or ${WAYS.acts_by_run.replace('select ', '')}`)}
    drop function ${WAY_NAMES.map((name) => `${name}(text, text)`).join(', ')};
    revoke execute on function acts(text, text) from ${ROLE};
    drop table session_people;
    drop function wake_ended;
    delete from csv_mappings;
  `);
}
