import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import type { Db } from '../../platform/db/connect.ts';
import { refuseEarly, type Taken } from '../advances/refuseEarly.ts';
import { refuseRaised } from './approved.ts';
import { assertClearable } from './assertClearable.ts';
import type { AssessedClaim, KeptClaim } from './assessed.ts';
import type { LockedClaim } from './claimStore.ts';
import { holdingMarks } from './holdingMarks.ts';
import { selectMarks } from './marks.queries.ts';

/**
 * Refuses what stands against posting a claim as it was assessed for a date: a comparison nobody dealt with, more than was
 * approved, an advance that is not open then. Previews ask the same, so that it is said before anybody tries.
 */
export async function assertPostable(
  db: Db,
  claim: Pick<LockedClaim, 'row' | 'at'>,
  { assessed, kept }: { assessed: AssessedClaim; kept: KeptClaim },
  date: string,
): Promise<void> {
  assertClearable(assessed, holdingMarks(await selectMarks(db, claim.at), assessed, kept));
  await refuseRaised(db, claim, assessed);
  await refuseEarly(db, takenOf(assessed), date);
}

/** What the settlement takes of each advance. */
const takenOf = ({ assessment, document }: AssessedClaim): Taken[] =>
  assessment.settlement.advances.map(({ advance, advancePart }) => {
    const { currency } = document.book.advances!.find((a) => a.id === advance)!;
    return { advance, currency, amount: toMinor(advancePart ?? fromMinor(0n, currency), currency) };
  });
