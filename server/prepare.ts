import { loadDemo } from '../demo/loadDemo.ts';
import { connect, type Db } from './platform/db/connect.ts';
import { installQueue } from './platform/jobs/jobs.ts';
import { writeLifecycleWays } from './platform/db/lifecycleWays.ts';
import { migrateLatest } from './platform/db/migrate.ts';

/**
 * Makes a database ready to serve: newest shape, the application's role with its password, and, in demo mode, the
 * sample organisation in an empty database. Run by the start command before the server, as the owner.
 */
export async function prepare(
  db: Db,
  ownerUrl: string,
  appPassword: string,
  demo: boolean,
  yearFollows = false,
): Promise<void> {
  await refuseOlder(db);
  await migrateLatest(db);
  await writeLifecycleWays(db);
  await installQueue(ownerUrl, db);
  await refuseTemporaryTables(db);
  const quoted = await db.raw('select quote_literal(?) as password', [appPassword]);
  await db.raw(`alter role ebbet_app with login password ${quoted.rows[0].password}`);
  // a backstop for whatever connects by that role: what serves sets shorter ones of its own
  await db.raw(`alter role ebbet_app in database ${await databaseName(db)} set statement_timeout = '10min'`);
  if (demo && (await isEmpty(db))) await loadDemo(db, { yearFollows });
}

/** No dump carries a right on the database as a whole, so it is said again each time. */
async function refuseTemporaryTables(db: Db): Promise<void> {
  await db.raw(`revoke temporary on database ${await databaseName(db)} from public`);
}
const databaseName = async (db: Db): Promise<string> =>
  (await db.raw('select quote_ident(current_database()) as name')).rows[0].name;

/** A database of before the ledger took journals of every source cannot be carried over. */
async function refuseOlder(db: Db): Promise<void> {
  if (!(await db.schema.hasTable('migrations'))) return;
  const older = await db('migrations').where({ name: '007_gather' }).first('name');
  if (older)
    throw new Error('it was made by an older version that cannot be carried over; "npm start -- --fresh" begins anew');
}

async function isEmpty(db: Db): Promise<boolean> {
  return (await db('people').first('id')) === undefined;
}

if (/prepare\.(ts|mjs)$/.test(process.argv[1] ?? '')) {
  const db = connect(process.env.DATABASE_OWNER_URL!);
  try {
    await prepare(
      db,
      process.env.DATABASE_OWNER_URL!,
      decodeURIComponent(new URL(process.env.DATABASE_APP_URL!).password),
      process.env.EBBET_DEMO !== '0',
      process.env.EBBET_DEMO_YEAR === '1',
    );
  } catch (error) {
    const { host } = new URL(process.env.DATABASE_OWNER_URL!);
    process.stderr.write(
      `ebbet: the database at ${host} could not be made ready: ${(error as Error).message || (error as { code?: string }).code}\n`,
    );
    process.exitCode = 1;
  } finally {
    await db.destroy();
  }
}
