// Which database a command works on: the one of DATABASE_OWNER_URL, or a private cluster.
import { readSecrets, startCluster } from './cluster.mjs';
import { Refusal } from './project.mjs';

/**
 * Environment for the server's programs: DATABASE_OWNER_URL migrates, DATABASE_APP_URL serves with fewer rights.
 * Where DATABASE_OWNER_URL is given that database is used, and its role must be allowed to make the application's role.
 */
export async function databaseUrls(name, { fresh = false, durable = true } = {}) {
  const given = process.env.DATABASE_OWNER_URL;
  if (process.env.DATABASE_URL && !given)
    throw new Refusal(
      'DATABASE_URL is read by nothing: name the address of the owner DATABASE_OWNER_URL, that of the application DATABASE_APP_URL',
    );
  if (given && fresh)
    throw new Refusal(
      '--fresh begins the private database anew; a database given by DATABASE_OWNER_URL is yours to empty',
    );
  const cluster = given
    ? { ownerUrl: given, secrets: readSecrets('given'), runs: () => true, begin: () => {}, stop: () => {} }
    : await startCluster(name, { fresh, durable });
  const app = new URL(cluster.ownerUrl);
  app.username = 'ebbet_app';
  app.password = cluster.secrets.app;
  return {
    /** Whether the application's role has the password that was made here. */
    ownPassword: !process.env.DATABASE_APP_URL,
    stop: cluster.stop,
    runs: cluster.runs,
    begin: cluster.begin,
    env: {
      ...process.env,
      DATABASE_OWNER_URL: cluster.ownerUrl,
      DATABASE_APP_URL: process.env.DATABASE_APP_URL ?? app.href,
      SESSION_SECRET: process.env.SESSION_SECRET ?? cluster.secrets.session,
      HISTORY_KEY: process.env.HISTORY_KEY ?? cluster.secrets.history,
      EBBET_DEMO: process.env.EBBET_DEMO ?? '1',
    },
  };
}
