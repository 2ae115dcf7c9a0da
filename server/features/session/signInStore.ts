import type { SignInState } from '../../../core/workflow/lifecycles/keeping.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import { lockCredential, updateCredential } from './credentials.queries.ts';

/** How a person signs in, as a record of their own. */
export const signInStore: RecordStore<SignInState, LockedRecord<SignInState>, string> = {
  async lock(trx, id) {
    const row = await lockCredential(trx, id);
    if (!row) return undefined;
    const state = row.factor === null ? 'password' : 'two factors';
    return { id, name: id, state, revision: row.revision, entity: null, people: { owner: id } };
  },
  save: (trx, { id }, { state: _, ...columns }) => updateCredential(trx, id, columns),
  exists: ({ id }, actor) => id === actor.id,
};
