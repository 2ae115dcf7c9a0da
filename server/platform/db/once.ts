import { AsyncLocalStorage } from 'node:async_hooks';
import { deserialize, serialize } from 'node:v8';
import type { Context } from '../context.ts';
import type { Db } from './connect.ts';
import { insertKey, selectKey, type KeyRow } from './keys.queries.ts';

/** A write that carries a key. */
export interface KeyedRequest {
  clock: Context['clock'];
  person: string;
  /** What is done to what: method and address. A key is of its act alone. */
  act: string;
  key: string;
  /** The fingerprint of what was sent. */
  hash: string;
  /** Whether its transaction was begun. What it gave is remembered, so there is one. */
  begun: boolean;
}
const keyed = new AsyncLocalStorage<KeyedRequest>();

/** Answers a request that carries a key. */
export const withKey = (request: Omit<KeyedRequest, 'begun'>, answer: () => void): void =>
  keyed.run({ ...request, begun: false }, answer);
/** The keyed request that is being answered; nothing in a job, or where no key was sent. */
export const keyedRequest = (): KeyedRequest | undefined => keyed.getStore();

/** A request that repeats the key of another one with other content. */
export class KeyReused extends Error {}

/**
 * Runs the transaction of a keyed request once: sent again with the same content it gives what it gave before, with other
 * content it is refused. Of twins that run at the same time one is kept, and both give the same.
 */
export async function once<T>(
  db: Db,
  request: KeyedRequest,
  transaction: (alongside: (trx: Db, result: T) => Promise<void>) => Promise<T>,
): Promise<T> {
  const { clock, person, act, key, hash } = request;
  if (request.begun) throw new Error(`${act} has a second transaction, which could not be told from the first`);
  request.begun = true;
  const of = { person_id: person, act, key };
  const remembered = async (): Promise<KeyRow | undefined> => {
    const row = await selectKey(db, of);
    if (row && row.request_hash !== hash) throw new KeyReused(key);
    return row;
  };
  const before = await remembered();
  if (before) return given<T>(before);
  try {
    return await transaction((trx, result) =>
      insertKey(trx, { ...of, request_hash: hash, response: kept(result), at: clock.now() }),
    );
  } catch (error) {
    // a twin may have won while we waited for what it held; then its result is ours
    const meanwhile = await remembered();
    if (meanwhile) return given<T>(meanwhile);
    throw error;
  }
}

/** What a transaction gave, with its dates and whole numbers as they are in memory. */
const kept = (result: unknown) => ({ v8: serialize(result).toString('base64') });
const given = <T>({ response }: KeyRow): T => deserialize(Buffer.from(response.v8, 'base64')) as T;
