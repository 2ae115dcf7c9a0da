import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import type { Statement } from './statementsOf.ts';

/** A server that runs these statements one after the other and answers with these bytes, and does nothing else. */
export async function bareRoute(connectionString: string, statements: readonly Statement[], body: string) {
  const pool = new pg.Pool({ connectionString, max: 1 });
  const server = createServer(async (_req, res) => {
    for (const { sql, values } of statements) await pool.query(sql, values as unknown[]);
    res.setHeader('content-type', 'application/json').end(body);
  });
  server.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    async close() {
      server.closeAllConnections();
      server.close();
      await pool.end();
    },
  };
}
