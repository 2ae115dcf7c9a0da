import type { Journey } from '../../../core/documents/allowance.schema.ts';
import { LET_THROUGH } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';

export interface JourneyRow {
  date: string;
  journey: Journey;
}

/** The journeys of a person on claims that are cleared or posted, but for one claim; lines that were cut whole are left out. */
export async function selectJourneys(
  db: Db,
  { id, claimant_id }: { id: bigint; claimant_id: string },
): Promise<JourneyRow[]> {
  const { rows } = await db.raw(
    `select l.date, l.journey from claims c
     join lines l on l.claim_id = c.id and l.version = c.version and l.journey is not null
     where c.claimant_id = ? and c.id <> ? and c.state = any(?)
       and not exists (select 1 from assessments a, jsonb_array_elements(a.document -> 'claim' -> 'lines') d
         where a.claim_id = c.id and a.version = c.version and d ->> 'id' = l.id and d -> 'cut' ->> 'amount' = d ->> 'amount')
     order by l.date, c.id, l.position`,
    [claimant_id, String(id), [...LET_THROUGH]] as never,
  );
  return rows;
}

export async function lockDriven(trx: Db, person: string): Promise<void> {
  await trx.raw(`select pg_advisory_xact_lock(hashtextextended('driven ' || ?, 0))`, [person]);
}
