import { setPriority } from 'node:os';
import { loadYear } from '../demo/year/loadYear.ts';
import { connect } from './platform/db/connect.ts';

/** Adds the demo's year before, while the server serves already. Run by the start command, as the owner. */
const db = connect(process.env.DATABASE_OWNER_URL!);
const begun = Date.now();
// whoever works meanwhile goes first
setPriority(10);
try {
  const claims = await loadYear(db);
  const seconds = Math.round((Date.now() - begun) / 1000);
  if (seconds > 1) process.stdout.write(`ebbet: the demo's year is in: ${claims} claims, ${seconds} s\n`);
} catch (error) {
  process.stderr.write(`ebbet: the demo's year could not be loaded: ${(error as Error).message}\n`);
  process.exitCode = 1;
} finally {
  await db.destroy();
}
