import type { Knex } from 'knex';

const ROLE = 'ebbet_app';

/**
 * What the queue is filtered by: codes, categories and comparisons that are not dealt with as one array of words, and the
 * total in the currency of the ledger. Views of the queue are kept under a name; who looked at a claim last, at which version,
 * and who has it open now.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table claims
      add column facets text[] not null default '{}',
      add column total numeric,
      add column drawn_at timestamptz;
    -- as far as rows tell; an act on the claim writes it whole
    update claims c set facets = array(
      select distinct f from (
        select 'category:' || l.category as f from lines l where l.claim_id = c.id and l.version = c.version and l.category is not null
        union all select d.key || ':' || d.value from lines l, jsonb_each_text(l.coding || c.coding) d where l.claim_id = c.id and l.version = c.version
        union all select d.key || ':' || d.value from shares s, jsonb_each_text(s.coding) d where s.claim_id = c.id and s.version = c.version
        union all select 'loose:' || t.key from jsonb_each_text(c.ties) t where t.value in ('off', 'open')) x);
    create index claims_facets on claims using gin (facets);
    create index claims_total on claims (state, total) where submitted_version is not null;

    create table desk_views (
      id bigint generated always as identity primary key,
      owner_id text not null references people,
      name text not null check (length(name) between 1 and 60),
      shared boolean not null default false,
      query text not null check (length(query) <= 1000),
      unique (owner_id, name)
    );
    create table claim_looks (
      claim_id bigint not null references claims,
      person_id text not null references people,
      version integer not null,
      -- the version looked at before that one: what a newer one is compared with
      before integer,
      seen_at timestamptz not null,
      here_until timestamptz not null,
      primary key (claim_id, person_id)
    );
    create index claim_looks_here on claim_looks (here_until);
    grant select, insert, update, delete on desk_views, claim_looks to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop table desk_views, claim_looks;
    drop index claims_total, claims_facets;
    alter table claims drop column facets, drop column total, drop column drawn_at;
  `);
}
