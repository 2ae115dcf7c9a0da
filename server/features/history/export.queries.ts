import type { ExportedJournal } from '../../../core/documents/record.schema.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectRows } from '../../records/ledger/journals.queries.ts';
import { writeLedgerRow } from '../../records/ledger/postJournal.ts';

const CHUNK = 200;

/** Every journal of some entities (null: of all) as it was posted, in the order of posting, with the hash it was posted under. */
export async function* selectJournalExport(
  db: Db,
  entities: readonly string[] | null,
): AsyncGenerator<ExportedJournal> {
  for (let after = 0n; ;) {
    const query = db('journals as j')
      .leftJoin('journals as o', 'o.id', 'j.reverses')
      .leftJoin('journals as k', 'k.id', 'j.corrects')
      .whereRaw('j.id > ?', [String(after)])
      .orderBy('j.id')
      .limit(CHUNK)
      .select('j.*', 'o.number as reversed', 'k.number as corrected');
    const heads = await (entities ? query.whereIn('j.entity_id', [...entities]) : query);
    for (const head of heads)
      yield {
        format: 'ebbet-journal/1',
        number: head.number,
        entity: head.entity_id,
        currency: head.currency,
        date: head.date,
        purpose: head.purpose,
        source: { kind: head.source_kind, id: head.source_id },
        reverses: head.reversed,
        corrects: head.corrected,
        rows: (await selectRows(db, head.id)).map((row) => writeLedgerRow(row, head.currency)),
        hash: head.hash,
      };
    if (heads.length < CHUNK) return;
    after = heads.at(-1).id;
  }
}
