import type { Db } from '../../platform/db/connect.ts';

export interface SessionRow {
  sid: string;
  sess: { personId: string; since: string; device: string };
  expire: Date;
}

/** A person's sessions that have not ended, the newest first. */
export const selectSessions = (db: Db, personId: string, begunAfter: Date): Promise<SessionRow[]> =>
  db('sessions')
    .whereRaw(`sess ->> 'personId' = ?`, [personId])
    .where('expire', '>', db.fn.now())
    .whereRaw(`(sess ->> 'since')::timestamptz > ?`, [begunAfter])
    .orderByRaw(`sess ->> 'since' desc`)
    .limit(100);

export async function deleteSession(db: Db, sid: string): Promise<void> {
  await db('sessions').where({ sid }).delete();
}
