// Which database a command works on: the server named by DATABASE_URL, or a private cluster.
import { readSecrets, startCluster } from './cluster.mjs';
import { Refusal } from './project.mjs';

/**
 * Environment for the server's programs: DATABASE_OWNER_URL migrates, DATABASE_APP_URL serves with fewer rights.
 * With DATABASE_URL that server is used, and the role in it must be allowed to make the application's role.
 */
export async function databaseUrls(name, { fresh = false, durable = true } = {}) {
  const given = process.env.DATABASE_URL;
  if (given && fresh)
    throw new Refusal('--fresh begins the private database anew; a server given by DATABASE_URL is yours to empty');
  const cluster = given
    ? { ownerUrl: given, secrets: readSecrets('given'), runs: () => true, begin: () => {}, stop: () => {} }
    : await startCluster(name, { fresh, durable });
  const app = new URL(cluster.ownerUrl);
  app.username = 'ebbet_app';
  app.password = cluster.secrets.app;
  return {
    stop: cluster.stop,
    runs: cluster.runs,
    begin: cluster.begin,
    env: {
      ...process.env,
      DATABASE_OWNER_URL: cluster.ownerUrl,
      DATABASE_APP_URL: process.env.DATABASE_APP_URL ?? app.href,
      SESSION_SECRET: process.env.SESSION_SECRET ?? cluster.secrets.session,
      EBBET_DEMO: process.env.EBBET_DEMO ?? '1',
    },
  };
}
