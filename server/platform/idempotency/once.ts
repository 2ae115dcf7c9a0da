import { canonical } from '../../../core/numbers/canonical.ts';
import type { Actor, Context } from '../context.ts';
import type { Db } from '../db/connect.ts';
import { inTransaction } from '../db/transaction.ts';
import { sha256 } from '../history/sha256.ts';
import { Refused } from '../http/refusal.ts';
import { insertKey, selectKey } from './idempotency.queries.ts';

/**
 * Runs an act once for a person and key: repeated with the same content it answers as before, with other content it is
 * refused. Twins that run at the same time end with one answer.
 */
export async function once<Request extends { key: string }, Answer>(
  context: Context,
  actor: Actor,
  act: string,
  request: Request,
  work: (trx: Db) => Promise<Answer>,
): Promise<Answer> {
  const request_hash = sha256(canonical(request));
  const remembered = async (): Promise<Answer | null> => {
    const row = await selectKey(context.db, actor.id, act, request.key);
    if (!row) return null;
    if (row.request_hash !== request_hash) throw new Refused('key-reused');
    return row.response as Answer;
  };
  const before = await remembered();
  if (before) return before;
  try {
    return await inTransaction(context, async (trx) => {
      const response = await work(trx);
      const row = { person_id: actor.id, act, key: request.key, request_hash, response, at: context.clock.now() };
      await insertKey(trx, row);
      return response;
    });
  } catch (error) {
    // A twin of this request may have won while we waited for the record's lock; then its answer is ours.
    const meanwhile = await remembered();
    if (meanwhile) return meanwhile;
    throw error;
  }
}
