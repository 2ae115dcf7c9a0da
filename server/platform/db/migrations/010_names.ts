import type { Knex } from 'knex';

const ROLE = 'ebbet_app';
const OF_TEN = 'append_event(text, text, timestamptz, text, text, text, text, text, text, jsonb)';
const SIGN_IN = 'set_sign_in(text, text, integer, text, bigint, text), take_step(text, bigint)';
const OF_ELEVEN = OF_TEN.replace(')', ', text)');

/**
 * An event names a person only when the application shows what that person alone brought: the id of a session of theirs, or
 * their token. The owner, who migrates and loads the demo, shows nothing. How somebody signs in changes in the same way, or by
 * the letter that was sent to them.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create function acts(person text, proof text) returns boolean language sql stable
    set search_path = pg_catalog, public, pg_temp as $$
      select exists (select 1 from sessions s where s.sid = proof and s.sess ->> 'personId' = person)
        or exists (select 1 from api_tokens t where t.hash = encode(sha256(convert_to(proof, 'utf8')), 'hex')
          and t.person_id = person and t.revoked_at is null)
    $$;
    create function append_event(kind_of_record text, record text, moment timestamptz, actor text, what text, said text,
      about_hash text, words_hash text, words_salt text, words_said jsonb, proof text)
    returns text language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    begin
      if actor is not null and session_user <> current_user and acts(actor, proof) is not true then
        raise exception 'nobody shows that they are %', actor using errcode = 'EB007';
      end if;
      return append_event(kind_of_record, record, moment, actor, what, said, about_hash, words_hash, words_salt, words_said);
    end $$;
    create function set_sign_in(person text, hash_of_password text, revised integer, sealed text, step bigint, proof text)
    returns void language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    declare
      letter text := encode(sha256(convert_to(proof, 'utf8')), 'hex');
    begin
      if acts(person, proof) is not true and not exists (
        select 1 from password_letters l where l.hash = letter and l.person_id = person
      ) then
        raise exception 'nobody shows that they are %', person using errcode = 'EB007';
      end if;
      insert into credentials (person_id, password_hash, revision, factor, factor_step)
        values (person, hash_of_password, revised, sealed, step)
        on conflict (person_id) do update set password_hash = excluded.password_hash, revision = excluded.revision,
          factor = excluded.factor,
          -- A code that was taken meanwhile stays taken.
          factor_step = greatest(credentials.factor_step, excluded.factor_step);
    end $$;
    create function take_step(person text, step bigint) returns boolean language plpgsql security definer
    set search_path = pg_catalog, public, pg_temp as $$
    begin
      update credentials set factor_step = step where person_id = person and factor_step < step;
      return found;
    end $$;
    revoke execute on function acts(text, text), ${OF_ELEVEN}, ${SIGN_IN} from public;
    grant execute on function ${SIGN_IN} to ${ROLE};
    revoke execute on function ${OF_TEN} from ${ROLE};
    grant execute on function ${OF_ELEVEN} to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop function ${OF_ELEVEN}, ${SIGN_IN};
    drop function acts;
    grant execute on function ${OF_TEN} to ${ROLE};
  `);
}
