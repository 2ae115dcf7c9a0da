import { toMinor } from '../../core/numbers/amount.ts';
import type { Found, Reading } from '../../core/evidence/reading/reading.types.ts';
import { randomFrom } from '../../demo/random.ts';
import { readFile } from '../../server/platform/outside/reading/readFile.ts';
import { inventFacts, LOCALES, type Facts } from './facts.ts';
import { LAYOUTS, type Layout } from './layouts.ts';
import { LAYOUTS_SEEN } from './layoutsSeen.ts';
import { LAYOUTS_UNSEEN } from './layoutsUnseen.ts';
import { HARMS, spoil } from './spoil.ts';

const AS_OF = '2026-06-30';
const FIELDS = ['amount', 'date', 'currency', 'tax'] as const;
type FieldName = (typeof FIELDS)[number];

/** How a field was read. Sure and wrong is what must not happen. */
type Grade = 'right' | 'missing' | 'wrong' | 'sure but wrong';
/** Of one field among the receipts of one set. */
export interface Tally {
  set: string;
  field: FieldName;
  count: number;
  right: number;
  sureWrong: number;
}
export interface Miss {
  set: string;
  at: string;
  field: FieldName;
  grade: Grade;
  says: string;
}

const SETS: readonly { set: string; layouts: readonly Layout[]; seed: number }[] = [
  { set: 'layouts the reader was made with', layouts: LAYOUTS, seed: 11 },
  { set: 'layouts it was changed for since', layouts: LAYOUTS_SEEN, seed: 12 },
  { set: 'layouts it was never changed for', layouts: LAYOUTS_UNSEEN, seed: 14 },
];

/** Draws, spoils and reads a receipt for every layout and locale, each with the next kind of harm. */
export async function benchReading(): Promise<{ tallies: Tally[]; misses: Miss[] }> {
  const tallies: Tally[] = [];
  const misses: Miss[] = [];
  for (const { set, layouts, seed } of SETS) {
    const random = randomFrom(seed);
    const own = FIELDS.map((field): Tally => ({ set, field, count: 0, right: 0, sureWrong: 0 }));
    for (const [l, layout] of layouts.entries())
      for (const [k, locale] of LOCALES.entries()) {
        const harm = HARMS[(l * 3 + k) % HARMS.length]!;
        const facts = inventFacts(random, locale, AS_OF);
        const bytes = await spoil(await layout(facts).png(), harm, random);
        const { reading } = await readFile({ kind: 'picture', type: 'image/jpeg', bytes, asOf: AS_OF });
        for (const tally of own) {
          const { grade, says } = gradeOf(tally.field, reading, facts);
          tally.count += 1;
          if (grade === 'right') tally.right += 1;
          if (grade === 'sure but wrong') tally.sureWrong += 1;
          if (grade !== 'right')
            misses.push({ set, at: `${locale.prefix} ${l + 1} ${harm}`, field: tally.field, grade, says });
        }
      }
    tallies.push(...own);
  }
  return { tallies, misses };
}

/** Right in how many percent, where a wrong field that was called sure is taken off once more. */
export const percentOf = ({ count, right, sureWrong }: Tally): number => (100 * (right - sureWrong)) / count;

function gradeOf(field: FieldName, reading: Reading, facts: Facts): { grade: Grade; says: string } {
  const { currency } = facts.locale;
  switch (field) {
    case 'amount':
      return judge(reading.amount, (v) => minorOf(v, currency) === facts.total);
    case 'date':
      return judge(reading.date, (v) => v === facts.date);
    case 'currency':
      return judge(reading.currency, (v) => v === currency);
    case 'tax': {
      const found = reading.taxes[0];
      const right =
        found?.tax != null && minorOf(found.tax, currency) === facts.tax && Number(found.rate) === facts.rate;
      return judge(found ? { value: `${found.rate}: ${found.tax}`, sure: found.sure } : null, () => right);
    }
    default:
      return field satisfies never;
  }
}

function judge(found: Pick<Found, 'value' | 'sure'> | null, isRight: (value: string) => boolean) {
  if (!found) return { grade: 'missing' as const, says: '' };
  if (isRight(found.value)) return { grade: 'right' as const, says: found.value };
  return { grade: found.sure === 'sure' ? ('sure but wrong' as const) : ('wrong' as const), says: found.value };
}

/** An amount with more decimals than its currency has is wrong, not an error. */
function minorOf(value: string, currency: string): number | null {
  try {
    return Number(toMinor(value, currency));
  } catch {
    return null;
  }
}
