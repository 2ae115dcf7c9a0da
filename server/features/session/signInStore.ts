import type { SignInState } from '../../../core/workflow/lifecycles/keeping.ts';
import type { LockedRecord, RecordStore } from '../../platform/acts/acts.types.ts';
import { lockCredential, writeCredential, type CredentialRow } from './credentials.queries.ts';

interface LockedSignIn extends LockedRecord<SignInState> {
  row: CredentialRow;
}

/** How a person signs in, as a record of their own; the database wants to be shown that it is them who changes it. */
export const signInStore = (proof: string): RecordStore<SignInState, LockedSignIn, string> => ({
  async lock(trx, id) {
    const row = await lockCredential(trx, id);
    if (!row) return undefined;
    const state = row.factor === null ? 'password' : 'two factors';
    return { id, name: id, state, revision: row.revision, entity: null, people: { owner: id }, row };
  },
  save: (trx, { row }, { state: _, ...columns }) => writeCredential(trx, { ...row, ...columns }, proof),
  exists: ({ id }, actor) => id === actor.id,
});
