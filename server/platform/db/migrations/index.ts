import type { Knex } from 'knex';
import * as people from './001_people.ts';
import * as book from './002_book.ts';
import * as history from './003_history.ts';
import * as evidence from './004_evidence.ts';
import * as claims from './005_claims.ts';
import * as ledger from './006_ledger.ts';
import * as access from './007_access.ts';
import * as kept from './008_kept.ts';
import * as signingIn from './009_signing_in.ts';
import * as names from './010_names.ts';
import * as movements from './011_movements.ts';
import * as papers from './012_papers.ts';
import * as cycles from './013_cycles.ts';
import * as prepared from './014_prepared.ts';
import * as plans from './015_plans.ts';
import * as facts from './016_facts.ts';
import * as attachments from './018_attachments.ts';
import * as routes from './019_routes.ts';
import * as advances from './020_advances.ts';
import * as messages from './021_messages.ts';
import * as questions from './022_questions.ts';
import * as desk from './023_desk.ts';
import * as clearing from './024_clearing.ts';
import * as columns from './025_columns.ts';
import * as splitUnits from './026_split_units.ts';
import * as earlierClaims from './027_earlier_claims.ts';
import * as handy from './017_handy.ts';
import * as decided from './028_decided.ts';
import * as rates from './029_rates.ts';
import * as guards from './030_guards.ts';
import * as proved from './031_proved.ts';
import * as alike from './032_alike.ts';
import * as keys from './033_keys.ts';
import * as carried from './034_carried.ts';
import * as looks from './035_looks.ts';
import * as lz4 from './036_lz4.ts';
import * as camt from './037_camt.ts';

interface Named extends Knex.Migration {
  name: string;
  /** The release it came with, and the tables it adds: what goes, and what would be lost, when that release is taken back. */
  release: string;
  adds: readonly string[];
}

const first = { release: '0.1', adds: [] } as const;
const second = (...adds: string[]) => ({ release: '0.2', adds });

export const MIGRATIONS: Named[] = [
  { name: '1.001_people', ...people, ...first },
  { name: '1.002_book', ...book, ...first },
  { name: '1.003_history', ...history, ...first },
  { name: '1.004_evidence', ...evidence, ...first },
  { name: '1.005_claims', ...claims, ...first },
  { name: '1.006_ledger', ...ledger, ...first },
  { name: '1.007_access', ...access, ...first },
  { name: '1.008_kept', ...kept, ...first },
  { name: '1.009_signing_in', ...signingIn, ...first },
  { name: '1.010_names', ...names, ...first },
  { name: '1.011_movements', ...movements, ...first },
  { name: '1.012_papers', ...papers, ...first },
  { name: '1.013_cycles', ...cycles, ...first },
  { name: '1.014_prepared', ...prepared, ...first },
  { name: '1.015_plans', ...plans, ...first },
  { name: '1.016_facts', ...facts, ...first },
  { name: '1.017_handy', ...handy, ...first },
  { name: '1.018_attachments', ...attachments, ...first },
  { name: '1.019_routes', ...routes, ...first },
  { name: '1.020_advances', ...advances, ...first },
  { name: '1.021_messages', ...messages, ...first },
  { name: '1.022_questions', ...questions, ...first },
  { name: '1.023_desk', ...desk, ...first },
  { name: '1.024_clearing', ...clearing, ...first },
  { name: '1.025_columns', ...columns, ...first },
  { name: '1.026_split_units', ...splitUnits, ...first },
  { name: '1.027_earlier_claims', ...earlierClaims, ...first },
  { name: '1.028_decided', ...decided, ...second('declined_lines', 'approved_figures') },
  { name: '1.029_rates', ...rates, ...second('rate_corrections') },
  { name: '1.030_guards', ...guards, ...second() },
  { name: '1.031_proved', ...proved, ...second() },
  { name: '1.032_alike', ...alike, ...second() },
  { name: '1.033_keys', ...keys, ...second() },
  { name: '1.034_carried', ...carried, ...second() },
  { name: '1.035_looks', ...looks, ...second() },
  { name: '1.036_lz4', ...lz4, ...second() },
  { name: '1.037_camt', ...camt, ...second() },
];

/** Migrations as modules rather than as a folder, so that they are part of the server's bundle. */
export const migrationSource: Knex.MigrationSource<Named> = {
  getMigrations: async () => MIGRATIONS,
  getMigrationName: (migration) => migration.name,
  getMigration: async (migration) => migration,
};
