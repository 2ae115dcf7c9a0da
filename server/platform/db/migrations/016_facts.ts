import type { Knex } from 'knex';

/**
 * Where a trip went and what its claimant says of a claim; what a line is computed from besides a quantity: a journey, or
 * the days of a stay; what was spent of a plan's estimates; what its claimant says to findings, and answers to queries; and
 * the statement that the policy was followed, which is accepted with it.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    alter table lines add journey jsonb, add stay jsonb;
    alter table claims add country char(2), add place text, add reference text, add note text;
    create table claim_explanations (
      claim_id bigint not null,
      version integer not null,
      position integer not null,
      line_id text,
      code text not null,
      about text not null,
      text text not null check (length(text) > 0),
      primary key (claim_id, version, position),
      unique nulls not distinct (claim_id, version, line_id, code, about),
      foreign key (claim_id, version) references claim_versions,
      foreign key (claim_id, version, line_id) references lines on delete cascade
    );
    grant select, insert, update, delete on claim_explanations to ebbet_app;
    create table policy_statements (
      row_id bigint generated always as identity primary key,
      id text not null,
      rule jsonb not null,
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      exclude using gist (id with =, daterange(valid_from, valid_to, '[]') with &&)
    );
    grant select, insert on policy_statements to ebbet_app;
    grant update (valid_to) on policy_statements to ebbet_app;
    alter table queries add answer text check (length(answer) > 0), add answered_by text references people, add answered_at timestamptz,
      add check ((answer is null) = (answered_by is null) and (answer is null) = (answered_at is null)),
      add check (answer is null or sent_at is not null);
    alter table assessments add estimates jsonb not null default '[]';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(
    `alter table queries drop answer, drop answered_by, drop answered_at; drop table policy_statements, claim_explanations; alter table assessments drop estimates; alter table claims drop note, drop reference, drop place, drop country; alter table lines drop stay, drop journey;`,
  );
}
