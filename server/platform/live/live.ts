import { Client } from 'pg';
import type { Logger } from 'pino';

/** Who is told that there is something new for a person; `off` ends it. */
export interface Live {
  /** Calls `wake` whenever something changed for a person, also after a break in which something may have. */
  on(person: string, wake: () => void): () => void;
  close(): Promise<void>;
}

const CHANNEL = 'messages';
const LONGEST_WAIT_MS = 10_000;

/**
 * Listens to the database on one connection of its own, so that it hears of what any server process did. A connection that is
 * lost is made again, later and later, and then everybody is woken, since what happened meanwhile was not heard.
 */
export function listenToDatabase(url: string, log: Logger): Live {
  const wakers = new Map<string, Set<() => void>>();
  let client: Client | null = null;
  let closed = false;
  let wait = 250;
  let lost = false;
  const wake = (of: Iterable<Set<() => void>>) => {
    for (const those of of) for (const one of those) one();
  };

  async function connect(): Promise<void> {
    const next = new Client({ connectionString: url, keepAlive: true });
    client = next;
    next.on('error', () => undefined);
    next.once('end', again);
    next.on('notification', ({ payload }) => wake([wakers.get(payload ?? '') ?? new Set()]));
    await next.connect();
    await next.query(`listen ${CHANNEL}`);
    if (lost) log.info('the database is listened to again');
    lost = false;
    wait = 250;
    wake(wakers.values());
  }
  function again(): void {
    if (closed) return;
    if (!lost) log.warn('the database is not listened to; it is tried again');
    lost = true;
    setTimeout(() => void connect().catch(() => client?.end().catch(again)), wait).unref();
    wait = Math.min(wait * 2, LONGEST_WAIT_MS);
  }

  void connect().catch(() => client?.end().catch(again));
  return {
    on(person, wakeUp) {
      const those = wakers.get(person) ?? new Set();
      wakers.set(person, those.add(wakeUp));
      return () => {
        those.delete(wakeUp);
        if (those.size === 0) wakers.delete(person);
      };
    },
    async close() {
      closed = true;
      await client?.end().catch(() => undefined);
    },
  };
}
