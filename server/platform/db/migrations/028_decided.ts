import type { Knex } from 'knex';

const ROLE = 'ebbet_app';

/**
 * A line that is declined is marked as such, with what was cut of it before under the mark; and what a claim came to when it
 * was approved, so that whatever raises it afterwards is known.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    create table declined_lines (
      claim_id bigint not null,
      version integer not null,
      line_id text not null,
      reason text not null check (length(reason) > 0),
      by_id text not null references people,
      at timestamptz not null,
      -- the cuts that stood before, by item ('' for the line itself)
      under jsonb not null default '{}',
      primary key (claim_id, version, line_id),
      foreign key (claim_id, version) references claim_versions
    );
    grant select, insert, delete on declined_lines to ${ROLE};
    -- what was declined before is marked: the last word about the line was a decline, and all of it is cut
    insert into declined_lines (claim_id, version, line_id, reason, by_id, at)
      select c.id, c.version, e.line, coalesce(e.reason, 'Declined'), e.actor_id, e.at
      from claims c
      join assessments a on a.claim_id = c.id and a.version = c.version
      cross join lateral (
        select distinct on (x.facts::jsonb ->> 'line') x.facts::jsonb ->> 'line' as line, x.kind, x.actor_id, x.at, w.words ->> 'reason' as reason
        from events x left join event_words w on w.event_id = x.id
        where x.record_kind = 'claim' and x.record_id = c.number and x.kind in ('line declined', 'line restored')
        order by x.facts::jsonb ->> 'line', x.seq desc) e
      cross join lateral jsonb_array_elements(a.document -> 'claim' -> 'lines') l
      where c.state in ('with approver', 'in review', 'cleared') and e.kind = 'line declined' and l ->> 'id' = e.line and e.actor_id is not null
        and (l -> 'cut' ->> 'amount' = l ->> 'amount' or jsonb_path_exists(l, '$.items[*].cut'));

    -- what its makers and approvers are told of a hold; the reason is for finance
    alter table claims add column hold_told text;
    -- a draft that nobody wants any more ends without ever having been handed in
    do $$ declare old text; begin
      select conname into strict old from pg_constraint where conrelid = 'claims'::regclass and pg_get_constraintdef(oid) like '%''draft''%submitted_on%';
      execute format('alter table claims drop constraint %I', old);
    end $$;
    alter table claims add constraint claims_handed_in check (
      state = 'draft' or (submitted_version is not null and submitted_on is not null) or (state = 'withdrawn' and submitted_version is null));

    create table approved_figures (
      claim_id bigint not null,
      version integer not null,
      at timestamptz not null,
      -- what is due in the currency of the claim; null where it could not be computed
      due bigint,
      -- what is charged to each code, as decimal strings of the ledger's currency
      charged jsonb not null,
      claim jsonb not null,
      primary key (claim_id, version),
      foreign key (claim_id, version) references claim_versions
    );
    grant select, insert, update on approved_figures to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`drop table approved_figures, declined_lines; alter table claims drop column hold_told;
    update claims set state = 'draft' where state = 'withdrawn' and submitted_version is null;
    alter table claims drop constraint claims_handed_in,
      add check (state = 'draft' or (submitted_version is not null and submitted_on is not null))`);
}
