import type { Knex } from 'knex';
import { connect } from './connect.ts';
import { migrationSource } from './migrations/index.ts';

const options: Knex.MigratorConfig = { migrationSource, tableName: 'migrations' };

/** Brings the database of an owner's URL to the newest shape; the names of the migrations that ran. */
export async function migrateLatest(db: Knex): Promise<string[]> {
  const [, ran] = (await db.migrate.latest(options)) as [number, string[]];
  return ran;
}

/** Takes back the migrations of the last batch. */
export async function rollback(db: Knex): Promise<string[]> {
  const [, ran] = (await db.migrate.rollback(options)) as [number, string[]];
  return ran;
}

/** Run as a program by `npm run db`. */
async function main(command: string | undefined): Promise<void> {
  const db = connect(process.env.DATABASE_OWNER_URL!);
  try {
    const ran = command === 'rollback' ? await rollback(db) : await migrateLatest(db);
    process.stdout.write(ran.length ? `${command}: ${ran.join(', ')}\n` : `${command}: nothing to do\n`);
  } finally {
    await db.destroy();
  }
}

if (process.argv[1]?.endsWith('migrate.ts')) await main(process.argv[2]);
