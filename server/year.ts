import { setPriority } from 'node:os';
import { loadYear } from '../demo/year/loadYear.ts';
import { people } from '../demo/people.ts';
import { people as staff } from '../demo/year/organisation.ts';
import { connect, type Db } from './platform/db/connect.ts';

/** Adds the demo's year before, while the server serves already. Run by the start command, as the owner. */
const db = connect(process.env.DATABASE_OWNER_URL!);
const begun = Date.now();
// whoever works meanwhile goes first
setPriority(10);
try {
  await refuseOthers(db);
  const claims = await loadYear(db);
  const seconds = Math.round((Date.now() - begun) / 1000);
  if (seconds > 1) process.stdout.write(`ebbet: the demo's year is in: ${claims} claims, ${seconds} s\n`);
} catch (error) {
  process.stderr.write(`ebbet: the demo's year could not be loaded: ${(error as Error).message}\n`);
  process.exitCode = 1;
} finally {
  await db.destroy();
}

/** The demo is not put beside people who are not its own. */
async function refuseOthers(of: Db): Promise<void> {
  const own = new Set([...people, ...staff].map((p) => p.id));
  const others: string[] = (await of('people').pluck('id')).filter((id: string) => !own.has(id));
  if (process.env.NODE_ENV === 'production' || others.length > 0)
    throw new Error('there are people here who are not the demo’s, or NODE_ENV is production');
}
