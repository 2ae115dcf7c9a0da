import type { Knex } from 'knex';

const ROLE = 'ebbet_app';

const SHOWN_BY = `
        select exists (select 1 from sessions s where s.sid = proof and s.sess ->> 'personId' = person)
          or exists (select 1 from api_tokens t where t.hash = encode(sha256(convert_to(proof, 'utf8')), 'hex')
            and t.person_id = person and t.revoked_at is null)`;

/**
 * Claims that are cleared together: who chose which, as they saw them; the seed of the draw of those that get a full look; what
 * became of each. A run goes on after the request, and after a stop of the server, in the name of who began it: by a secret that
 * the database takes only from who shows that they are that person, and only until the run has ended.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table clearing_runs (
      id bigint generated always as identity primary key,
      person_id text not null references people,
      begun_at timestamptz not null,
      seed text not null check (length(seed) = 64),
      share numeric not null check (share between 0 and 100),
      proof_hash text not null unique,
      stopped_at timestamptz,
      ended_at timestamptz
    );
    create index clearing_runs_person on clearing_runs (person_id, id desc);
    create table clearing_items (
      run_id bigint not null references clearing_runs,
      claim_id bigint not null references claims,
      position integer not null,
      revision integer not null,
      outcome text check (outcome in ('drawn', 'cleared', 'left out')),
      says text,
      primary key (run_id, claim_id),
      check ((outcome = 'left out') = (says is not null))
    );
    create index clearing_items_left on clearing_items (run_id, position) where outcome is null;
    grant select on clearing_runs to ${ROLE};
    grant update (stopped_at, ended_at) on clearing_runs to ${ROLE};
    grant select, insert, update on clearing_items to ${ROLE};

    create function keep_ended() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if old.ended_at is not null then
        raise exception 'this run has ended' using errcode = 'restrict_violation';
      end if;
      return new;
    end $$;
    create trigger clearing_runs_ended before update on clearing_runs for each row execute function keep_ended();
    create trigger clearing_runs_kept before delete on clearing_runs for each row execute function refuse_change();

    create or replace function acts(person text, proof text) returns boolean language sql stable
    set search_path = pg_catalog, public, pg_temp as $$${SHOWN_BY}
          or exists (select 1 from clearing_runs r where r.proof_hash = encode(sha256(convert_to(proof, 'utf8')), 'hex')
            and r.person_id = person and r.ended_at is null)
    $$;
    create function begin_clearing(person text, proof text, moment timestamptz, seed_of_draw text, percent numeric, secret_hash text)
    returns bigint language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    declare
      made bigint;
    begin
      if acts(person, proof) is not true then
        raise exception 'nobody shows that they are %', person using errcode = 'EB007';
      end if;
      insert into clearing_runs (person_id, begun_at, seed, share, proof_hash)
        values (person, moment, seed_of_draw, percent, secret_hash) returning id into made;
      return made;
    end $$;
    create function resume_clearing(run bigint, person text, proof text, secret_hash text) returns boolean
    language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    begin
      if acts(person, proof) is not true then
        raise exception 'nobody shows that they are %', person using errcode = 'EB007';
      end if;
      update clearing_runs set stopped_at = null, proof_hash = secret_hash
        where id = run and person_id = person and ended_at is null;
      return found;
    end $$;
    revoke execute on function begin_clearing(text, text, timestamptz, text, numeric, text),
      resume_clearing(bigint, text, text, text) from public;
    grant execute on function begin_clearing(text, text, timestamptz, text, numeric, text),
      resume_clearing(bigint, text, text, text) to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    create or replace function acts(person text, proof text) returns boolean language sql stable
    set search_path = pg_catalog, public, pg_temp as $$${SHOWN_BY}
    $$;
    drop function begin_clearing(text, text, timestamptz, text, numeric, text), resume_clearing(bigint, text, text, text);
    drop table clearing_items, clearing_runs;
    drop function keep_ended();
  `);
}
