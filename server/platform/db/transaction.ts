import type { Context } from '../context.ts';
import { keyedRequest, once } from './once.ts';
import type { Db } from './connect.ts';

/**
 * Runs work in one transaction: all of it is kept, or, when it throws, nothing. For a request that carries a key the work is
 * done once; sent again, the request gets what the work gave the first time.
 */
export const inTransaction = <T>(context: Pick<Context, 'db'>, work: (trx: Db) => Promise<T>): Promise<T> =>
  afterPreparing(
    context,
    async () => undefined,
    (trx) => work(trx),
  );

/** As `inTransaction`, with what takes long or refuses done before it, outside: once as well, since it may not be possible again. */
export function afterPreparing<Prepared, T>(
  { db }: Pick<Context, 'db'>,
  prepare: () => Promise<Prepared>,
  work: (trx: Db, prepared: Prepared) => Promise<T>,
): Promise<T> {
  const request = db.isTransaction ? undefined : keyedRequest();
  const run = async (alongside?: (trx: Db, result: T) => Promise<void>): Promise<T> => {
    const prepared = await prepare();
    return repeatable({ db }, async (trx) => {
      const result = await work(trx, prepared);
      await alongside?.(trx, result);
      return result;
    });
  };
  return request ? once(db, request, run) : run();
}

/**
 * Runs work in one transaction that by itself makes nothing twice of the same content, so that nothing has to be remembered of
 * it: one of several of a request, each of which may have been done before.
 */
export const repeatable = <T>({ db }: Pick<Context, 'db'>, work: (trx: Db) => Promise<T>): Promise<T> =>
  db.transaction((trx) => work(trx as unknown as Db));
