import type { Knex } from 'knex';
import * as people from './001_people.ts';
import * as book from './002_book.ts';
import * as claims from './003_claims.ts';
import * as ledger from './004_ledger.ts';
import * as access from './005_access.ts';
import * as rules from './006_rules.ts';
import * as gather from './007_gather.ts';

interface Named extends Knex.Migration {
  name: string;
}

const MIGRATIONS: Named[] = [
  { name: '001_people', ...people },
  { name: '002_book', ...book },
  { name: '003_claims', ...claims },
  { name: '004_ledger', ...ledger },
  { name: '005_access', ...access },
  { name: '006_rules', ...rules },
  { name: '007_gather', ...gather },
];

/** Migrations as modules rather than as a folder, so that they are part of the server's bundle. */
export const migrationSource: Knex.MigrationSource<Named> = {
  getMigrations: async () => MIGRATIONS,
  getMigrationName: (migration) => migration.name,
  getMigration: async (migration) => migration,
};
