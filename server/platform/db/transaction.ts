import type { Context } from '../context.ts';
import type { Db } from './connect.ts';

/** Runs work in one transaction: all of it is kept, or, when it throws, nothing. */
export function inTransaction<T>({ db }: Pick<Context, 'db'>, work: (trx: Db) => Promise<T>): Promise<T> {
  return db.transaction((trx) => work(trx as unknown as Db));
}
