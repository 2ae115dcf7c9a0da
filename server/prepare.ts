import { loadDemo } from '../demo/loadDemo.ts';
import { connect, type Db } from './platform/db/connect.ts';
import { installQueue } from './platform/jobs/jobs.ts';
import { writeLifecycleWays } from './platform/db/lifecycleWays.ts';
import { migrateLatest } from './platform/db/migrate.ts';
import { nameOf } from './platform/db/nameOf.ts';

/** What is made ready besides the shape of the database; nothing unless it is asked for. */
export interface Preparing {
  /** The password the application's role is given, for the whole server; null leaves the role as it is. */
  appPassword?: string | null;
  /** The sample organisation in an empty database; only the start command and tests ask for it. */
  demo?: boolean;
  yearFollows?: boolean;
}

/**
 * Makes a database ready to serve: newest shape, the queue, and what the application's role may do. Run before the servers, as
 * the owner.
 */
export async function prepare(
  db: Db,
  ownerUrl: string,
  { appPassword = null, demo = false, yearFollows = false }: Preparing = {},
): Promise<void> {
  await refuseOlder(db);
  await migrateLatest(db);
  await writeLifecycleWays(db);
  await installQueue(ownerUrl, db);
  await limitRole(db);
  if (appPassword !== null) await givePassword(db, appPassword);
  if (demo && (await isEmpty(db))) await loadDemo(db, { yearFollows });
}

/** No dump carries what holds for the database as a whole, so it is said again each time. */
async function limitRole(db: Db): Promise<void> {
  const { rows } = await db.raw('select quote_ident(current_database()) as name');
  const { name } = rows[0];
  await db.raw(`revoke temporary on database ${name} from public`);
  // a backstop for whatever connects by that role: what serves sets shorter ones of its own
  await db.raw(`alter role ebbet_app in database ${name} set statement_timeout = '10min'`);
}

async function givePassword(db: Db, password: string): Promise<void> {
  if (password === '') throw new Error('DATABASE_APP_URL holds no password to give the role ebbet_app');
  const quoted = await db.raw('select quote_literal(?) as password', [password]);
  await db.raw(`alter role ebbet_app with login password ${quoted.rows[0].password}`);
}

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

/** What was asked for on the command line: `--demo` and `--app-password` are the start command's, on a database of its own. */
function asked(): Preparing {
  const args = process.argv.slice(2);
  const demo = args.includes('--demo');
  if (demo && process.env.NODE_ENV === 'production')
    throw new Error('the demo, whose password everybody knows, is not loaded where NODE_ENV is production');
  const url = process.env.DATABASE_APP_URL;
  const password = args.includes('--app-password') && url ? decodeURIComponent(new URL(url).password) : null;
  return { demo, yearFollows: args.includes('--year-follows'), appPassword: password };
}

if (/prepare\.(ts|mjs)$/.test(process.argv[1] ?? '')) {
  const url = process.env.DATABASE_OWNER_URL;
  if (!url) {
    process.stderr.write('ebbet: DATABASE_OWNER_URL must hold the address of the database, as its owner\n');
    process.exit(1);
  }
  process.stdout.write(`ebbet: making ${nameOf(url)} ready\n`);
  const db = connect(url);
  try {
    await prepare(db, url, asked());
  } catch (error) {
    const said = (error as Error).message || (error as { code?: string }).code;
    process.stderr.write(`ebbet: ${nameOf(url)} could not be made ready: ${said}\n`);
    process.exitCode = 1;
  } finally {
    await db.destroy();
  }
}
