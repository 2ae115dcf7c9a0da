import type { Knex } from 'knex';

const ROLE = 'ebbet_app';
const CORRECT = 'correct_rate(bigint, text, text)';

/**
 * A published rate that was entered wrongly is put right by two people: one asks for it with the reason, another one lets it
 * be. The rate changes in this function alone, which wants to be shown who acts and that it is somebody else.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table rate_corrections (
      id bigint generated always as identity primary key,
      revision integer not null default 1,
      state text not null check (state in ('asked for', 'done', 'dropped')),
      from_currency char(3) not null,
      to_currency char(3) not null,
      date date not null,
      was numeric not null,
      becomes numeric not null check (becomes > 0),
      source text not null check (length(source) > 0),
      reason text not null check (length(reason) > 0),
      asked_by text not null references people,
      asked_at timestamptz not null,
      decided_by text references people,
      decided_at timestamptz,
      check (becomes <> was),
      check ((state = 'asked for') = (decided_by is null)),
      check ((decided_by is null) = (decided_at is null)),
      check (state <> 'done' or decided_by <> asked_by),
      foreign key (from_currency, to_currency, date) references rates
    );
    create unique index rate_corrections_open on rate_corrections (from_currency, to_currency, date) where state = 'asked for';
    grant select on rate_corrections to ${ROLE};
    grant insert (state, from_currency, to_currency, date, was, becomes, source, reason, asked_by, asked_at) on rate_corrections to ${ROLE};
    grant update (revision, state, decided_by, decided_at) on rate_corrections to ${ROLE};

    create function only_decide_once() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if old.state <> 'asked for' then
        raise exception 'correction % was decided', old.id using errcode = 'restrict_violation';
      end if;
      if new.state = 'done' and not exists (select 1 from rates r where r.from_currency = old.from_currency and r.to_currency = old.to_currency
          and r.date = old.date and r.rate = old.becomes) then
        raise exception 'correction % is done by correct_rate alone', old.id using errcode = 'restrict_violation';
      end if;
      return new;
    end $$;
    create trigger rate_corrections_decided before update on rate_corrections for each row execute function only_decide_once();
    create trigger rate_corrections_kept before delete on rate_corrections for each row execute function refuse_change();

    create function correct_rate(correction bigint, person text, proof text) returns void
    language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    declare asked rate_corrections;
    begin
      if session_user <> current_user and acts(person, proof) is not true then
        raise exception 'nobody shows that they are %', person using errcode = 'EB007';
      end if;
      select * into asked from rate_corrections where id = correction and state = 'asked for' for update;
      if asked.id is null or asked.asked_by = person then
        raise exception 'correction % waits for somebody else', correction using errcode = 'restrict_violation';
      end if;
      update rates set rate = asked.becomes, source = asked.source
        where from_currency = asked.from_currency and to_currency = asked.to_currency and date = asked.date and rate = asked.was;
      if not found then
        raise exception 'the rate of correction % is another by now', correction using errcode = 'restrict_violation';
      end if;
    end $$;
    revoke execute on function ${CORRECT} from public;
    grant execute on function ${CORRECT} to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop function ${CORRECT};
    drop table rate_corrections;
    drop function only_decide_once;
  `);
}
