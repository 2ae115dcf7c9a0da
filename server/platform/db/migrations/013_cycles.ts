import type { Knex } from 'knex';

/**
 * Cards whose statements close within a month, and imports that are taken back: the statement stays as it came and says
 * so; charges go that nothing else holds, by these rules and no other way.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table cards add closes_on smallint check (closes_on between 1 and 31);
    grant update (closes_on) on cards to ebbet_app;
    create function keep_cycle() returns trigger language plpgsql security definer set search_path = pg_catalog, public, pg_temp as $$
    begin
      if old.closes_on is distinct from new.closes_on
        and exists (select 1 from card_months where card_id = old.id and state = 'closed') then
        raise exception 'card % has closed months, so its cycle stays', old.id using errcode = 'EB008';
      end if;
      return new;
    end $$;
    create trigger cards_cycle before update on cards for each row execute function keep_cycle();

    alter table statements drop constraint statements_state_check;
    alter table statements add constraint statements_state_check check (state in ('imported', 'refused', 'taken back'));
    drop trigger statements_immutable on statements;
    create function only_take_back() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if tg_op = 'UPDATE' and old.state = 'imported' and new.state = 'taken back'
        and to_jsonb(old) - 'state' = to_jsonb(new) - 'state' then
        return new;
      end if;
      raise exception 'a statement stays as it came' using errcode = 'restrict_violation';
    end $$;
    create trigger statements_immutable before update or delete on statements for each row execute function only_take_back();

    create function only_unlink() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if tg_op = 'DELETE' and exists (select 1 from statements where id = old.statement_id and state = 'taken back') then
        return old;
      end if;
      raise exception 'what a statement tells of stays' using errcode = 'restrict_violation';
    end $$;
    create trigger statement_charges_immutable before update or delete on statement_charges for each row execute function only_unlink();

    create or replace function only_name_a_charge() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if tg_op = 'UPDATE' and old.reference is null and to_jsonb(old) - 'reference' = to_jsonb(new) - 'reference' then
        return new;
      end if;
      -- lines and marks hold it by their keys; a charge of no statement is one whose import was taken back
      if tg_op = 'DELETE' and not exists (select 1 from statement_charges where charge_id = old.id)
        and not exists (select 1 from charge_marks where charge_id = old.id and state <> 'unmarked') then
        return old;
      end if;
      raise exception 'what the bank said of a charge cannot be changed' using errcode = 'restrict_violation';
    end $$;
    alter table charge_marks drop constraint charge_marks_charge_id_fkey;
    alter table charge_marks add constraint charge_marks_charge_id_fkey foreign key (charge_id) references charges on delete cascade;
    grant update (state) on statements to ebbet_app;
    grant delete on statement_charges, charges to ebbet_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    revoke delete on statement_charges, charges from ebbet_app;
    revoke update (state) on statements from ebbet_app;
    drop trigger statement_charges_immutable on statement_charges;
    drop trigger statements_immutable on statements;
    create trigger statements_immutable before update or delete on statements for each row execute function refuse_change();
    drop function only_unlink, only_take_back;
    create or replace function only_name_a_charge() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if tg_op = 'UPDATE' and old.reference is null and to_jsonb(old) - 'reference' = to_jsonb(new) - 'reference' then
        return new;
      end if;
      raise exception 'what the bank said of a charge cannot be changed' using errcode = 'restrict_violation';
    end $$;
    alter table statements drop constraint statements_state_check;
    alter table statements add constraint statements_state_check check (state in ('imported', 'refused'));
    drop trigger cards_cycle on cards;
    drop function keep_cycle;
    alter table cards drop closes_on;
  `);
}
