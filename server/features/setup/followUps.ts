import type { SetupKind } from '../../../contract/setup.ts';
import type { Asked } from '../../platform/acts/acts.types.ts';
import type { Db } from '../../platform/db/connect.ts';
import { selectEntityIds } from '../../records/book/book.queries.ts';
import { rebuildBook } from '../../records/book/sharedBook.ts';
import { useOfBook, useOfBudget, useOfPerson, useOfRate } from '../../records/claims/usesOf.ts';
import type { Descriptor } from './descriptors.ts';
import { selectBudgetIds, type Key } from './setup.queries.ts';

/** What follows a change of master data: books are written anew in the same transaction, claims assessed by it after it. */
export async function followUps(
  trx: Db,
  kind: SetupKind,
  descriptor: Descriptor,
  key: Key,
  row: Record<string, unknown>,
): Promise<Asked[]> {
  const { affects } = descriptor;
  switch (affects.what) {
    case 'nothing':
      return [];
    case 'books': {
      const entities =
        affects.of === 'all' ? await selectEntityIds(trx) : [String(row[kind === 'entities' ? 'id' : 'entity'])];
      const asked: Asked[] = [];
      for (const entity of entities) if (await rebuildBook(trx, entity)) asked.push(again(useOfBook(entity)));
      return asked;
    }
    case 'rates':
      return [again(useOfRate(String(row.from))), again(useOfRate(String(row.to)))];
    case 'budget':
      return (await selectBudgetIds(trx, descriptor, key)).map((id) => again(useOfBudget(String(id))));
    case 'person':
      return [again(useOfPerson(String(row.id))), GO_ON];
    case 'deciders':
      return [GO_ON];
    default:
      return affects satisfies never;
  }
}

const GO_ON: Asked = { name: 'go-on-with-routes', data: {} };
const again = (key: string): Asked => ({ name: 'assess-claims', data: { key } });
