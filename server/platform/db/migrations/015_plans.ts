import type { Knex } from 'knex';

const ROLE = 'ebbet_app';
const DATED = `
      valid_from date,
      valid_to date,
      check (valid_from <= valid_to),
      exclude using gist (id with =, daterange(valid_from, valid_to, '[]') with &&)`;
/** A kind of rules that are data: one row an id and span of days. */
const ruleTable = (name: string) => `
    create table ${name} (
      row_id bigint generated always as identity primary key,
      id text not null,
      rule jsonb not null,${DATED}
    );`;

/**
 * Plans, agreed before the money is spent, with what is estimated of each; templates by kind of trip; rates of mileage
 * and of days away. What estimates come to is computed when something of a plan changes, and kept with it. Of one plan
 * there is one claim at a time.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ${['plan_templates', 'mileage_rates', 'allowance_rates'].map(ruleTable).join('')}
    alter table entity_terms add plan_tolerance jsonb;

    create sequence plan_numbers start 201;
    create table plans (
      id bigint generated always as identity primary key,
      number text not null unique,
      revision integer not null default 1 check (revision >= 1),
      state text not null check (state in ('draft', 'with approver', 'approved', 'declined', 'withdrawn', 'used up', 'lapsed')),
      entity_id text not null references entities,
      claimant_id text not null references people,
      preparer_id text not null references people,
      approver_id text references people,
      currency char(3) not null,
      purpose text not null,
      kind text not null,
      country char(2),
      place text,
      trip_from date,
      trip_to date,
      private_days jsonb not null default '[]',
      coding jsonb not null default '{}',
      last_estimate integer not null default 0,
      submitted_on date,
      approved_on date,
      total bigint,
      assessed jsonb,
      check (trip_from <= trip_to),
      check (state in ('draft', 'withdrawn') or submitted_on is not null),
      check (state not in ('approved', 'used up', 'lapsed') or approved_on is not null)
    );
    create index plans_claimant on plans (claimant_id, id desc);
    create index plans_preparer on plans (preparer_id, id desc);
    create index plans_approver on plans (approver_id) where state = 'with approver';
    create index plans_last_day on plans (trip_to) where state = 'approved';
    create table plan_estimates (
      plan_id bigint not null references plans,
      id text not null,
      position integer not null,
      category text not null,
      description text,
      per text not null check (per in ('trip', 'day', 'night', 'allowance')),
      count integer check (count >= 0),
      price bigint check (price >= 0),
      currency char(3),
      coding jsonb not null default '{}',
      primary key (plan_id, id),
      check ((price is null) = (currency is null))
    );
    create unique index claims_of_plan on claims ((plan ->> 'number')) where plan is not null and state not in ('declined', 'withdrawn');

    grant select, insert on plan_templates, mileage_rates, allowance_rates to ${ROLE};
    grant update (valid_to) on plan_templates, mileage_rates, allowance_rates to ${ROLE};
    grant select, insert, update on plans to ${ROLE};
    grant select, insert, update, delete on plan_estimates to ${ROLE};
    grant usage on sequence plan_numbers to ${ROLE};
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    drop index claims_of_plan;
    drop table plan_estimates, plans;
    drop sequence plan_numbers;
    alter table entity_terms drop plan_tolerance;
    drop table allowance_rates, mileage_rates, plan_templates;
  `);
}
