import { canonical } from '../../../core/numbers/canonical.ts';
import type { SharedBook } from '../../../core/documents/splitBook.ts';
import type { Db } from '../../platform/db/connect.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import { Refused } from '../../platform/http/refusal.ts';
import {
  MAX_RATE_AGE,
  PIVOT,
  selectAccountCodes,
  selectCategories,
  selectEntityTerms,
  selectStoredBook,
  selectTaxCodes,
  upsertEntityBook,
  type StoredBook,
} from './book.queries.ts';
import {
  selectAllowanceRates,
  selectCodingRules,
  selectDimensions,
  selectLimits,
  selectMileageRates,
} from './rules.queries.ts';

/** The book of an entity as it stands, by its hash; refused when the entity's terms were never set. */
export async function currentBook(db: Db, entityId: string): Promise<StoredBook> {
  const stored = await selectStoredBook(db, entityId);
  if (!stored) throw new Refused('no-book', { entity: entityId });
  return stored;
}

/**
 * Writes the book of an entity anew after a row of it changed, and names it as the one in force; whether it is another
 * than before. The same content keeps its hash, so it is stored once however often it comes back.
 */
export async function rebuildBook(trx: Db, entityId: string): Promise<boolean> {
  const entities = await selectEntityTerms(trx, entityId);
  if (entities.length === 0) return false;
  const content: SharedBook = {
    entities,
    pivot: PIVOT,
    maxRateAge: MAX_RATE_AGE,
    taxCodes: await selectTaxCodes(trx),
    categories: await selectCategories(trx),
    accounts: await selectAccountCodes(trx),
    dimensions: await selectDimensions(trx),
    codingRules: await selectCodingRules(trx),
    limits: await selectLimits(trx),
    mileageRates: await selectMileageRates(trx),
    allowanceRates: await selectAllowanceRates(trx),
  };
  const text = canonical(content);
  return upsertEntityBook(trx, entityId, sha256(text), text);
}
