import type { Knex } from 'knex';

/** Whoever has a claim open hears that it changed, by whatever act and whatever process. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create function tell_who_looks() returns trigger language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    begin
      perform pg_notify('messages', k.person_id) from claim_looks k where k.claim_id = new.id and k.here_until > now();
      return null;
    end $$;
    create trigger claims_looked_at after update on claims for each row
      when (old.revision <> new.revision) execute function tell_who_looks();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`drop trigger claims_looked_at on claims; drop function tell_who_looks`);
}
