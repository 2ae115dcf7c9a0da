// Runs a command of node_modules/.bin with a throw-away database of its own: node bin/withDatabase.mjs tsx bench/main.ts
import { databaseUrls } from './lib/database.mjs';
import { buildIfChanged } from './lib/build.mjs';
import { ensureDebianPackages, ensureNodePackages } from './lib/packages.mjs';
import { bin, main, runAsync } from './lib/project.mjs';

await main(async () => {
  const [command, ...args] = process.argv.slice(2);
  ensureNodePackages();
  ensureDebianPackages('postgresql', 'chromium-headless-shell');
  await buildIfChanged();
  for (const given of ['DATABASE_OWNER_URL', 'DATABASE_APP_URL', 'DATABASE_URL']) delete process.env[given];
  const database = await databaseUrls('test', { fresh: true, durable: false });
  try {
    return await runAsync(bin(command), args, { env: database.env });
  } finally {
    database.stop();
  }
});
