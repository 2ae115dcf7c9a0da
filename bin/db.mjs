// npm run db -- migrate | rollback [TABLE…] | psql : the private database, or the one of DATABASE_OWNER_URL.
import { databaseUrls } from './lib/database.mjs';
import { ensureDebianPackages, ensureNodePackages } from './lib/packages.mjs';
import { bin, main, Refusal, run } from './lib/project.mjs';

await main(async () => {
  const [command, ...rest] = process.argv.slice(2);
  if (!['migrate', 'rollback', 'psql'].includes(command))
    throw new Refusal('use npm run db -- migrate, rollback or psql');
  ensureNodePackages();
  if (!process.env.DATABASE_OWNER_URL) ensureDebianPackages('postgresql');
  const database = await databaseUrls('start');
  try {
    if (command === 'psql') run('/usr/bin/psql', [database.env.DATABASE_OWNER_URL, ...rest]);
    else run(bin('tsx'), ['server/platform/db/migrate.ts', command, ...rest], { env: database.env });
  } finally {
    database.stop();
  }
});
