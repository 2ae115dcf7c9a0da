import type { ShownAdvance } from '../../../contract/advances.ts';
import { isOverdue } from '../../../core/advances/judgeRequest.ts';
import { standingOf } from '../../../core/advances/standing.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import type { Context } from '../../platform/context.ts';
import { today } from '../../platform/ports/clock.ts';
import { selectAdvanceMovements } from '../../records/advances/advances.queries.ts';
import type { ClaimRow } from '../../records/claims/claims.queries.ts';
import type { VersionKey } from '../../records/claims/versionKey.ts';
import { selectAdvancesBeside } from './view.queries.ts';

/** Every advance of the claimant that something is open of, or that the claim names, as it stands now. */
export async function advancesBeside(
  { db, clock }: Pick<Context, 'db' | 'clock'>,
  { claimant_id: person, entity_id: entity, currency }: ClaimRow,
  key: VersionKey,
): Promise<ShownAdvance[]> {
  const rows = await selectAdvancesBeside(db, { person, entity, key });
  if (rows.length === 0) return [];
  const movements = await selectAdvanceMovements(
    db,
    rows.map((r) => r.id),
  );
  return rows.map(({ id, purpose, currency: own, due_by: dueBy, position, up_to, time_zone }) => {
    const stands = standingOf(movements.get(id) ?? []);
    const amount = (of: keyof typeof stands) => fromMinor(stands[of].amount, own);
    return {
      ...{ number: id, purpose, currency: own, dueBy },
      overdue: isOverdue({ open: stands.open.amount, dueBy }, today(clock, time_zone)),
      ...{ paidOut: amount('paidOut'), accountedFor: amount('accountedFor'), givenBack: amount('givenBack') },
      open: amount('open'),
      here: position === null ? null : { position, upTo: up_to === null ? null : fromMinor(up_to, currency) },
    };
  });
}
