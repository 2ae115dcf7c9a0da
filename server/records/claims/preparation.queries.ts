import { ENDED, IN_PREPARATION } from '../../../core/workflow/lifecycles/claim.ts';
import type { Db } from '../../platform/db/connect.ts';

export interface ChargeLine {
  claim_id: bigint;
  version: number;
  number: string;
  id: string;
  /** Whether its claim is in preparation, so that the line may still change. */
  preparing: boolean;
  /** Whether its claim is of another entity than the charge's card. */
  foreign: boolean;
  amount: bigint;
  currency: string;
}
/** Lines as the newest version of their claim has them, on claims that count. */
const linesThatCount = (trx: Db) =>
  trx('lines as l')
    .join('claims as c', (join) => join.on('c.id', 'l.claim_id').andOn('c.version', 'l.version'))
    .whereNotIn('c.state', [...ENDED]);

/** The lines that carry a charge, those of submitted claims first. */
export function selectLinesOfCharge(trx: Db, chargeId: bigint): Promise<ChargeLine[]> {
  const preparing = trx.raw('c.state = any(?) as preparing', [[...IN_PREPARATION]] as never);
  const foreign = trx.raw('c.entity_id <> k.entity_id as foreign');
  return linesThatCount(trx)
    .join('charges as h', 'h.id', 'l.charge_id')
    .join('cards as k', 'k.id', 'h.card_id')
    .where('l.charge_id', String(chargeId))
    .select('l.claim_id', 'l.version', 'c.number', 'l.id', 'l.amount', 'l.currency', preparing, foreign)
    .orderBy([{ column: 'preparing' }, { column: 'c.id' }, { column: 'l.position' }]);
}

/** Numbers of the claims in preparation that carry one of the charges: what the bank took is divided among them anew. */
export function selectClaimsOfCharges(trx: Db, chargeIds: readonly string[]): Promise<string[]> {
  return linesThatCount(trx)
    .whereRaw('l.charge_id = any(?::bigint[])', [[...chargeIds]])
    .whereIn('c.state', [...IN_PREPARATION])
    .distinct()
    .pluck('c.number');
}

/** Puts one receipt in the place of another on lines of claims in preparation. The caller holds the claims' locks. */
export async function moveLinesToReceipt(trx: Db, from: bigint, to: bigint): Promise<void> {
  await trx.raw(
    `update lines l set receipt_id = ? from claims c
     where c.id = l.claim_id and c.version = l.version and c.state = any(?) and l.receipt_id = ?`,
    [String(to), [...IN_PREPARATION], String(from)],
  );
}

/** The charge a line stands on; null for none, and for a line that is not there. */
export async function selectChargeOfLine(
  trx: Db,
  key: { claim_id: bigint; version: number; id: string },
): Promise<string | null> {
  const charge = (await trx('lines').where(key).first('charge_id'))?.charge_id ?? null;
  return charge === null ? null : String(charge);
}
