import type { Knex } from 'knex';

const ROLE = 'ebbet_app';

/**
 * How people sign in is theirs to change: passwords, authenticator codes, codes for a lost phone, letters for a new
 * password. And when the ends of the chains were sent elsewhere.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table credentials
      add revision integer not null default 1,
      -- The secret of the authenticator, sealed by the server's own secret; null without one.
      add factor text,
      -- The time step of the last code that was taken: none opens twice.
      add factor_step bigint not null default 0;
    create table recovery_codes (
      hash text primary key check (length(hash) = 64),
      person_id text not null references people
    );
    create index recovery_codes_person on recovery_codes (person_id);
    create table password_letters (
      hash text primary key check (length(hash) = 64),
      person_id text not null references people,
      made_at timestamptz not null
    );
    create index password_letters_person on password_letters (person_id);
    create table sealings (
      id bigint generated always as identity primary key,
      at timestamptz not null,
      records integer not null,
      sha256 text not null check (length(sha256) = 64)
    );
    create index events_at on events (at);
    grant select, insert on sealings to ${ROLE};
    grant select, insert, delete on recovery_codes, password_letters to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table recovery_codes, password_letters, sealings;
    drop index events_at;
    alter table credentials drop revision, drop factor, drop factor_step;
  `);
}
