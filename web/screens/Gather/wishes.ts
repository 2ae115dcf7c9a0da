import { merchantSameness } from '../../../core/evidence/merchants/merchantWords.ts';
import { ALIKE, PROOF } from '../../../core/evidence/matching/scorePair.ts';
import type { PairsView, TakeRequest } from '../../api/gather.ts';

/** One line to be made: from a receipt, a charge, or both. */
export interface Wish {
  key: string;
  receipt?: string;
  charge?: string;
  name: string;
  /** Proposed from the merchant's code; null where the person chooses. */
  category: string | null;
  ready: boolean;
}
/** What the person said of the wishes, by their keys: other categories, and which are not to be put together. */
export interface Choice {
  categories: Readonly<Record<string, string>>;
  alone: ReadonlySet<string>;
}
/** A line as it would be made. `category` is an id, PRIVATE, or empty while it is not known. */
export interface PlannedLine {
  wish: Wish;
  receipt: string | null;
  charge: string | null;
  category: string;
}
export interface Partner {
  receipt?: string;
  charge?: string;
  name: string;
  category: string | null;
}

/** In the place of a category: bought privately with the company's card. */
export const PRIVATE = '~private';
/** Of one merchant, so little is enough; of others, or where one is not known, only what is proof. */
const LEAST_OF_ONE_MERCHANT = 70;

/** The charge of a receipt, or the receipt of a charge, that is most likely the same spending; null when none is likely. */
export function partner(wish: Wish, { proposals, receipts, charges }: PairsView): Partner | null {
  const pair = proposals.spendings.find((p) =>
    wish.receipt ? p.left[0] === wish.receipt : p.right[0] === wish.charge,
  );
  const receipt = receipts.find((r) => r.id === pair?.left[0]);
  const charge = charges.find((c) => c.id === pair?.right[0]);
  if (!pair || pair.differs !== null || !receipt || !charge) return null;
  const least = merchantSameness(receipt.merchant, charge.merchant) >= ALIKE ? LEAST_OF_ONE_MERCHANT : PROOF;
  if (pair.score < least) return null;
  if (!wish.receipt) return { receipt: receipt.id, name: `the receipt ${receipt.name}`, category: null };
  const name = `the charge of ${charge.merchant}, ${charge.purchasedOn}`;
  return { charge: charge.id, name, category: charge.category };
}

/** A wish with its partner, unless it stays alone, and the category that was chosen or else is proposed. */
export function plannedLine(wish: Wish, { categories, alone }: Choice, pairs: PairsView | undefined): PlannedLine {
  const other = pairs && !alone.has(wish.key) ? partner(wish, pairs) : null;
  return {
    wish,
    receipt: wish.receipt ?? other?.receipt ?? null,
    charge: wish.charge ?? other?.charge ?? null,
    category: categories[wish.key] ?? wish.category ?? other?.category ?? '',
  };
}

/** Why the lines cannot be made yet, in words that say what to do; null when they can. */
export function problemOf(lines: readonly PlannedLine[], claimIsKnown: boolean): string | null {
  const names = (of: readonly PlannedLine[]) => of.map((l) => l.wish.name).join(', ');
  const unready = lines.filter((l) => !l.wish.ready);
  if (unready.length > 0) return `Look at ${names(unready)} first and confirm what it shows.`;
  const missing = lines.filter((l) => l.category === '');
  if (missing.length > 0) return `Choose a category for ${names(missing)}.`;
  return claimIsKnown ? null : 'Say what the claim is for.';
}

/** A line as it is asked for. */
export const takeOf = ({ receipt, charge, category }: PlannedLine): TakeRequest['take'][number] => ({
  receipt,
  charge,
  category: category === PRIVATE ? null : category,
  personal: category === PRIVATE,
});
