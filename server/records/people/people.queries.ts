import type { Db } from '../../platform/db/connect.ts';

export interface PersonRow {
  id: string;
  name: string;
  kind: 'employee' | 'contractor';
  entity_id: string;
  currency: string;
  usual_approver: string | null;
}
export const selectPerson = (db: Db, id: string): Promise<PersonRow | undefined> =>
  db('people').where({ id }).first('id', 'name', 'kind', 'entity_id', 'currency', 'usual_approver');
