import sharp from 'sharp';
import { toMinor } from '../../core/numbers/amount.ts';
import type { Found, Reading } from '../../core/evidence/reading/reading.types.ts';
import { randomFrom, type Random } from '../../demo/random.ts';
import { readFile } from '../../server/platform/outside/reading/readFile.ts';
import { AS_OF, type Drawn } from './drawn.ts';
import { byHand, HARD, sureOf, twoPapers } from './hard.ts';
import { inventFacts, LOCALES, type Facts } from './facts.ts';
import { LAYOUTS, type Layout } from './layouts.ts';
import { LAYOUTS_SEEN } from './layoutsSeen.ts';
import { LAYOUTS_UNSEEN } from './layoutsUnseen.ts';
import { MORE_LOCALES } from './moreLocales.ts';
import { openPress, SHEETS, sheetOf } from './sheets.ts';
import { HARMS, spoil } from './spoil.ts';

const FIELDS = ['amount', 'date', 'currency', 'tax', 'card', 'bought', 'paid'] as const;
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

const SETS: readonly { set: string; draw: () => AsyncGenerator<Drawn> }[] = [
  { set: 'layouts the reader was made with', draw: () => drawn(LAYOUTS, 11) },
  { set: 'layouts it was changed for since', draw: () => drawn([...LAYOUTS_SEEN, ...LAYOUTS_UNSEEN], 12) },
  { set: 'forty set by a browser, clean', draw: () => printed(21, false) },
  { set: 'forty set by a browser, spoilt', draw: () => printed(22, true) },
];

/** Draws, spoils and reads receipts of every set, or of those whose name has a word. */
export async function benchReading(only = ''): Promise<{ tallies: Tally[]; misses: Miss[] }> {
  const tallies: Tally[] = [];
  const misses: Miss[] = [];
  for (const { set, draw } of SETS.filter((s) => s.set.includes(only))) {
    const own = FIELDS.map((field): Tally => ({ set, field, count: 0, right: 0, sureWrong: 0 }));
    for await (const { at, facts, bytes } of draw()) {
      const { reading } = await readFile({ kind: 'picture', type: 'image/jpeg', bytes, asOf: AS_OF });
      for (const tally of own) {
        const { grade, says } = gradeOf(tally.field, reading, facts);
        tally.count += 1;
        if (grade === 'right') tally.right += 1;
        if (grade === 'sure but wrong') tally.sureWrong += 1;
        if (grade !== 'right') misses.push({ set, at, field: tally.field, grade, says });
      }
    }
    tallies.push(...own);
  }
  return { tallies, misses };
}

/** Of papers on which nothing may be sure: what was called sure all the same, and how many of two papers were told apart. */
export async function benchHard(): Promise<{ sure: string[]; apart: number; count: number }> {
  const sure: string[] = [];
  let apart = 0;
  const read = async ({ bytes }: Drawn) =>
    (await readFile({ kind: 'picture', type: 'image/jpeg', bytes, asOf: AS_OF })).reading;
  for await (const drawn of byHand(31)) {
    const { amount } = await read(drawn);
    if (amount?.sure === 'sure' && minorOf(amount.value, drawn.facts.locale.currency) !== drawn.facts.total)
      sure.push(`written by hand: ${drawn.at}, ${amount.value}`);
  }
  for await (const drawn of twoPapers(32)) {
    const reading = await read(drawn);
    if (reading.apart?.length === 2) apart += 1;
    for (const field of sureOf(reading)) sure.push(`two papers: ${drawn.at}, ${field} ${reading[field]!.value}`);
  }
  return { sure, apart, count: HARD };
}

/** A receipt for every layout and country, each with the next kind of harm. */
async function* drawn(layouts: readonly Layout[], seed: number): AsyncGenerator<Drawn> {
  const random = randomFrom(seed);
  for (const [l, layout] of layouts.entries())
    for (const [k, locale] of LOCALES.entries()) {
      const harm = HARMS[(l * 3 + k) % HARMS.length]!;
      const facts = inventFacts(random, locale, AS_OF);
      yield {
        at: `${locale.prefix} ${l + 1} ${harm}`,
        facts,
        bytes: await spoil(await layout(facts).png(), harm, random),
      };
    }
}

/** Forty receipts, one a layout, of the countries in turn; spoilt ones lie on their side now and then, as on a table. */
async function* printed(seed: number, spoilt: boolean): AsyncGenerator<Drawn> {
  const random = randomFrom(seed);
  const press = await openPress();
  try {
    for (let layout = 0; layout < SHEETS; layout += 1) {
      const locale = MORE_LOCALES[layout % MORE_LOCALES.length]!;
      const facts = inventFacts(random, locale, AS_OF);
      const png = await press.print(sheetOf(layout, facts));
      const harm = spoilt ? HARMS[1 + (layout % (HARMS.length - 1))]! : 'none';
      yield {
        at: `${locale.prefix} ${layout + 1} ${harm}`,
        facts,
        bytes: await asTaken(png, harm, spoilt, layout, random),
      };
    }
  } finally {
    await press.close();
  }
}

async function asTaken(png: Buffer, harm: (typeof HARMS)[number], spoilt: boolean, layout: number, random: Random) {
  const lying = spoilt && layout % 5 === 4;
  const laid = await sharp(png)
    .rotate(lying ? 90 * (1 + (layout % 3)) : 0)
    .extend({ top: 20, bottom: 20, left: 20, right: 20, background: spoilt ? '#8d8579' : '#ffffff' })
    .png()
    .toBuffer();
  return spoil(laid, harm, random);
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
    case 'card':
      return judge(reading.cardDigits, (v) => v === facts.card);
    case 'bought': {
      const { bought = [] } = reading;
      const read = bought.map((item) => `${minorOf(item.amount, currency)}`).sort();
      const right =
        read.join()
        === facts.items
          .map((item) => `${item.minor}`)
          .sort()
          .join();
      return judge(bought.length > 0 ? { value: read.join(' '), sure: 'likely' } : null, () => right);
    }
    case 'paid':
      return judge(reading.paid ?? null, () => true);
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
