import type { Knex } from 'knex';
import { connect } from './connect.ts';
import { MIGRATIONS, migrationSource } from './migrations/index.ts';
import { nameOf } from './nameOf.ts';

const options: Knex.MigratorConfig = { migrationSource, tableName: 'migrations' };

/** Brings the database of an owner's URL to the newest shape; the names of the migrations that ran. */
export async function migrateLatest(db: Knex): Promise<string[]> {
  const [, ran] = (await db.migrate.latest(options)) as [number, string[]];
  return ran;
}

/** A rollback that would lose something nobody named. */
export class RollbackRefused extends Error {}

/**
 * Takes back what the newest release added to the database, and nothing of the ones before: of a database that knows one release
 * alone nothing. Tables with rows in them go only when they are named. The names of the migrations taken back, the last first.
 */
export async function rollback(db: Knex, named: readonly string[] = []): Promise<string[]> {
  const ran = new Set<string>(await db('migrations').pluck('name'));
  const there = MIGRATIONS.filter((m) => ran.has(m.name));
  const release = there.at(-1)?.release;
  if (!there.some((m) => m.release !== release))
    throw new RollbackRefused(`it knows release ${release ?? 'none'} alone, so there is no earlier one to go back to`);
  const back = there.filter((m) => m.release === release).reverse();
  const full = await withRows(
    db,
    back.flatMap((m) => m.adds),
  );
  const unnamed = full.filter((table) => !named.includes(table));
  if (unnamed.length > 0)
    throw new RollbackRefused(
      `these tables came with release ${release} and hold rows that would be lost: ${unnamed.join(', ')}. Name them to drop them: npm run db rollback -- ${full.join(' ')}`,
    );
  for (const { name } of back) await db.migrate.down({ ...options, name } as never);
  return back.map(({ name }) => name);
}

async function withRows(db: Knex, tables: readonly string[]): Promise<string[]> {
  const full: string[] = [];
  for (const table of tables) if (await db(table).first(db.raw('1 as one'))) full.push(table);
  return full;
}

/** Run as a program by `npm run db`. */
async function main(command: string | undefined, named: string[]): Promise<void> {
  const url = process.env.DATABASE_OWNER_URL!;
  process.stdout.write(`ebbet: ${command} on ${nameOf(url)}\n`);
  const db = connect(url);
  try {
    const ran = command === 'rollback' ? await rollback(db, named) : await migrateLatest(db);
    process.stdout.write(ran.length ? `${command}: ${ran.join(', ')}\n` : `${command}: nothing to do\n`);
  } catch (error) {
    if (!(error instanceof RollbackRefused)) throw error;
    process.stderr.write(`ebbet: nothing was taken back: ${error.message}\n`);
    process.exitCode = 1;
  } finally {
    await db.destroy();
  }
}

if (process.argv[1]?.endsWith('migrate.ts')) await main(process.argv[2], process.argv.slice(3));
