import type { Knex } from 'knex';

const ROLE = 'ebbet_app';
const SAFE = 'security definer set search_path = pg_catalog, public, pg_temp';
/** The owner migrates and loads the demo; what is refused here is refused to the application. */
const NOT_THE_OWNER = 'if session_user = current_user then return new; end if;';

/** Records that have a state, with what the lifecycle calls them, and the column their history stands under. */
const RECORDS = [
  ['claims', 'claim', 'number'],
  ['plans', 'plan', 'number'],
  ['advances', 'advance', 'id'],
  ['receipts', 'receipt', 'id'],
  ['statements', 'statement', 'id'],
  ['rate_corrections', 'rate correction', 'id'],
] as const;
/** Records whose history stands under several columns. */
const KEYED = [
  ['periods', 'period', ['entity_id', 'id']],
  ['card_months', 'card month', ['card_id', 'month']],
] as const;

/** Rows of the master data: table, kind, key, and the columns (of updates) that are a change of it. */
const MASTER: readonly (readonly [string, string, readonly string[], string?])[] = [
  ['person_roles', 'roles', ['person_id', 'role', 'entity_id']],
  ['substitutes', 'substitutes', ['person_id']],
  ['people', 'people', ['id'], 'name, email, kind, currency, usual_approver, sponsor, active, entity_id'],
  ['entities', 'entities', ['id']],
  ['entity_terms', 'entity-terms', ['entity_id']],
  ['payee_terms', 'payee-terms', ['person_id', 'entity_id']],
  ['accounts', 'accounts', ['code']],
  ['dimension_values', 'dimension-values', ['dimension_id', 'code']],
  ['categories', 'categories', ['id']],
  ['tax_codes', 'tax-codes', ['code']],
  ['coding_rules', 'coding-rules', ['id']],
  ['limits', 'limits', ['id']],
  ['routes', 'routes', ['id']],
  ['mileage_rates', 'mileage-rates', ['id']],
  ['allowance_rates', 'allowance-rates', ['id']],
  ['advance_rules', 'advance-rules', ['id']],
  ['policy_statements', 'policy-statements', ['id']],
  ['rates', 'rates', ['from_currency', 'to_currency', 'date'], ''],
  ['budgets', 'budgets', ['entity_id', 'dimension_id', 'code', 'category'], 'amount'],
  ['cards', 'cards', ['id']],
  ['settings', 'settings', ['key']],
];

/** What a claim's version consists of; it stays as it is once the claim is posted, or another version was begun. */
const OF_A_VERSION = [
  'lines',
  'items',
  'tax_entries',
  'shares',
  'claim_advances',
  'assessments',
  'findings',
  'declined_lines',
  'tie_marks',
];
const POSTED = `('posted', 'part paid', 'paid', 'payment rejected')`;

const telling = (table: string, kind: string, prefix: string, key: readonly string[], on: string) => `
    create constraint trigger ${table}_told after ${on} on ${table} deferrable initially deferred
      for each row execute function told_in_history('${kind}', '${prefix}', ${key.map((k) => `'${k}'`).join(', ')});`;

/**
 * The database itself keeps states: they change as the lifecycles say, each with an event in the same transaction; a posted claim
 * has its journal, and a journal its claim; whose a record is does not change; what is posted or was submitted before stays as
 * it is; an advance that was paid out has its payout and never falls below zero.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table lifecycle_ways (
      kind text not null,
      from_state text not null,
      to_state text not null,
      primary key (kind, from_state, to_state)
    );
    alter table events add column made_in xid8;
    alter table events alter column made_in set default pg_current_xact_id();

    create function follow_lifecycle() returns trigger language plpgsql ${SAFE} as $$
    declare before text := case when tg_op = 'INSERT' then '' else old.state end;
    begin
      ${NOT_THE_OWNER}
      if before <> new.state and not exists (
        select 1 from lifecycle_ways w where w.kind = tg_argv[0] and w.from_state = before and w.to_state = new.state) then
        raise exception 'a % does not go from % to %', tg_argv[0], before, new.state using errcode = 'EB010';
      end if;
      return new;
    end $$;
    create function told_in_history() returns trigger language plpgsql ${SAFE} as $$
    declare
      fields jsonb := to_jsonb(new);
      record text := '';
    begin
      ${NOT_THE_OWNER}
      if tg_op = 'UPDATE' and (to_jsonb(old) = fields
          or (tg_argv[0] <> 'setting' and to_jsonb(old) ->> 'state' is not distinct from fields ->> 'state')) then
        return null;
      end if;
      for i in 2 .. tg_nargs - 1 loop
        record := record || case when i > 2 then '/' else '' end || coalesce(fields ->> tg_argv[i], '*');
      end loop;
      if not exists (select 1 from events e where e.record_kind = tg_argv[0] and e.record_id = tg_argv[1] || record
          and e.made_in = pg_current_xact_id()) then
        raise exception 'nothing tells of % %', tg_argv[0], tg_argv[1] || record using errcode = 'EB011';
      end if;
      return null;
    end $$;
    ${[...RECORDS.map(([t, k]) => [t, k] as const), ...KEYED.map(([t, k]) => [t, k] as const)]
      .map(
        ([table, kind]) => `create trigger ${table}_follow before insert or update of state on ${table} for each row
      execute function follow_lifecycle('${kind}');`,
      )
      .join('\n    ')}
    ${RECORDS.map(([table, kind, key]) => telling(table, kind, '', [key], 'insert or update of state')).join('')}
    ${KEYED.map(([table, kind, key]) => telling(table, kind, '', key, 'update of state')).join('')}
    ${MASTER.map(([table, kind, key, columns]) =>
      telling(
        table,
        'setting',
        `${kind}/`,
        key,
        columns === '' ? 'insert' : `insert or update${columns ? ` of ${columns}` : ''}`,
      ),
    ).join('')}
    drop trigger cards_told on cards;
    ${telling('cards', 'setting', 'cards/', ['id'], 'insert or update of holder_id, label, closes_on')}

    create function refuse_other(what text, before anyelement, now anyelement) returns void language plpgsql immutable
    set search_path = pg_catalog, public, pg_temp as $$
    begin
      if before is distinct from now then
        raise exception '% stays as it is', what using errcode = 'EB010';
      end if;
    end $$;
    create function keep_claim() returns trigger language plpgsql ${SAFE} as $$
    begin
      ${NOT_THE_OWNER}
      perform refuse_other('the number of a claim', old.number, new.number), refuse_other('its claimant', old.claimant_id, new.claimant_id),
        refuse_other('its preparer', old.preparer_id, new.preparer_id);
      if old.state not in ('draft', 'returned') then
        perform refuse_other('its entity', old.entity_id, new.entity_id), refuse_other('its currency', old.currency, new.currency);
      end if;
      if old.state in ${POSTED} then
        perform refuse_other('its version', old.version, new.version), refuse_other('who cleared it', old.cleared_by, new.cleared_by);
      end if;
      return new;
    end $$;
    create trigger claims_kept before update on claims for each row execute function keep_claim();
    create function keep_advance() returns trigger language plpgsql ${SAFE} as $$
    begin
      ${NOT_THE_OWNER}
      perform refuse_other('the number of an advance', old.id, new.id), refuse_other('its person', old.person_id, new.person_id),
        refuse_other('its entity', old.entity_id, new.entity_id);
      if old.state in ('paid out', 'settled') then
        perform refuse_other('its amount', old.amount, new.amount), refuse_other('its currency', old.currency, new.currency);
      end if;
      if new.state in ('paid out', 'settled') and not exists (
        select 1 from advance_payments p where p.advance_id = new.id and p.kind = 'payout') then
        raise exception 'advance % was not paid out', new.id using errcode = 'EB010';
      end if;
      return new;
    end $$;
    create trigger advances_kept before update on advances for each row execute function keep_advance();

    create function claim_agrees_with_ledger() returns trigger language plpgsql ${SAFE} as $$
    declare
      wanted text := case tg_table_name when 'claims' then to_jsonb(new) ->> 'number'
        else regexp_replace(to_jsonb(new) ->> 'source_id', '/[^/]*$', '') end;
      claim record;
      lives boolean;
    begin
      if session_user = current_user then return null; end if;
      select number, version, state into claim from claims where number = wanted;
      select exists (select 1 from journals j where j.source_kind = 'claim' and j.purpose = 'claim' and j.live
        and j.source_id like replace(replace(claim.number, '_', '\\_'), '%', '\\%') || '/%') into lives;
      if (claim.state in ${POSTED}) <> lives then
        raise exception 'claim % is %, and its journal says otherwise', claim.number, claim.state using errcode = 'EB010';
      end if;
      return null;
    end $$;
    create constraint trigger claims_agree after insert or update of state, version on claims deferrable initially deferred
      for each row execute function claim_agrees_with_ledger();
    create constraint trigger journals_agree after insert on journals deferrable initially deferred
      for each row when (new.source_kind = 'claim') execute function claim_agrees_with_ledger();

    create function keep_version() returns trigger language plpgsql ${SAFE} as $$
    begin
      if session_user <> current_user and exists (
        select 1 from changed x join claims c on c.id = x.claim_id
        where c.state in ${POSTED} or x.version < c.version) then
        raise exception 'a posted claim, and a version before, stays as it is' using errcode = 'EB010';
      end if;
      return null;
    end $$;
    ${OF_A_VERSION.flatMap((table) => [
      `create trigger ${table}_kept_i after insert on ${table} referencing new table as changed for each statement execute function keep_version();`,
      `create trigger ${table}_kept_u after update on ${table} referencing old table as changed for each statement execute function keep_version();`,
      `create trigger ${table}_kept_d after delete on ${table} referencing old table as changed for each statement execute function keep_version();`,
    ]).join('\n    ')}

    create function advance_stays_open() returns trigger language plpgsql ${SAFE} as $$
    begin
      if exists (
        select 1 from (select sum(sum(m.amount)) over (order by j.date) as open from open_item_movements m
          join open_items i on i.id = m.item_id and i.kind = 'staff advance' join journals j on j.id = m.journal_id
          where m.item_id = new.item_id group by j.date) days where open < 0) then
        raise exception 'more is taken of an advance than was open on that day' using errcode = 'EB009';
      end if;
      return null;
    end $$;
    create constraint trigger open_item_movements_stay after insert on open_item_movements deferrable initially deferred
      for each row execute function advance_stays_open();

    alter table budgets add check (reserved >= 0);
    create function budget_below_zero() returns trigger language plpgsql ${SAFE} as $$
    begin
      if session_user <> current_user and new.amount < 0
        and exists (select 1 from budgets b where b.id = new.budget_id and (b.cleared < 0 or b.posted < 0))
        and not exists (select 1 from claims c join lines l on l.claim_id = c.id and l.version = c.version
          left join items i on i.claim_id = l.claim_id and i.version = l.version and i.line_id = l.id
          where (l.amount < 0 or i.amount < 0) and c.number in (
            select m.source_id from budget_movements m where m.budget_id = new.budget_id and m.source_kind = 'claim')) then
        raise exception 'budget % would fall below zero, and nothing charged to it is a credit', new.budget_id using errcode = 'EB010';
      end if;
      return null;
    end $$;
    create constraint trigger budget_movements_above after insert on budget_movements deferrable initially deferred
      for each row execute function budget_below_zero();

    create trigger event_words_kept before update on event_words for each row execute function refuse_change();
    create trigger receipt_pages_kept before update on receipt_pages for each row execute function refuse_change();
    create trigger idempotency_keys_kept before update or delete on idempotency_keys for each row execute function refuse_change();
    create function keep_original() returns trigger language plpgsql set search_path = pg_catalog, public, pg_temp as $$
    begin
      if old.sha256 <> new.sha256 or old.original <> new.original or old.original_type <> new.original_type then
        raise exception 'an original stays as it came' using errcode = 'restrict_violation';
      end if;
      return new;
    end $$;
    create trigger receipt_files_kept before update on receipt_files for each row execute function keep_original();
    grant select on lifecycle_ways to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  const drop = (name: string, table: string) => `drop trigger ${name} on ${table};`;
  await knex.raw(`
    ${drop('receipt_files_kept', 'receipt_files')} ${drop('idempotency_keys_kept', 'idempotency_keys')}
    ${drop('receipt_pages_kept', 'receipt_pages')} ${drop('event_words_kept', 'event_words')}
    ${drop('budget_movements_above', 'budget_movements')} ${drop('open_item_movements_stay', 'open_item_movements')}
    alter table budgets drop constraint budgets_reserved_check;
    ${OF_A_VERSION.flatMap((table) => ['i', 'u', 'd'].map((on) => drop(`${table}_kept_${on}`, table))).join(' ')}
    ${drop('journals_agree', 'journals')} ${drop('claims_agree', 'claims')}
    ${drop('advances_kept', 'advances')} ${drop('claims_kept', 'claims')}
    ${[...RECORDS.map(([t]) => t), ...KEYED.map(([t]) => t), ...MASTER.map(([t]) => t)]
      .filter((t, i, all) => all.indexOf(t) === i)
      .map((table) => drop(`${table}_told`, table))
      .join(' ')}
    ${[...RECORDS.map(([t]) => t), ...KEYED.map(([t]) => t)].map((table) => drop(`${table}_follow`, table)).join(' ')}
    drop function keep_original, budget_below_zero, advance_stays_open, keep_version, claim_agrees_with_ledger, keep_advance, keep_claim,
      told_in_history, follow_lifecycle;
    drop function refuse_other(text, anyelement, anyelement);
    alter table events drop column made_in;
    drop table lifecycle_ways;
  `);
}
