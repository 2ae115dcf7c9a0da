import { describe, expect, it } from 'vitest';
import { mappingSchema } from '../../contract/statements.ts';
import { proposeMapping } from '../../server/platform/outside/statements/columns/proposeMapping.ts';
import { readTable } from '../../server/platform/outside/statements/csv.ts';
import { entriesOfTable } from '../../server/platform/outside/statements/tableRows.ts';
import { randomTable, type RandomTable, type TrueRow } from '../plain/randomTable.ts';

/** So many in a run; `TABLES=5000` for more. */
const RUNS = Number(process.env.TABLES ?? 300);
/** Of proposals without anything to add or to change, in a hundred. */
const WHOLLY_RIGHT = 80;

/** What one table comes to: each field right, left open or wrong, and the charges that were taken wrongly. */
function tried(seed: number) {
  const table = randomTable(seed);
  const read = readTable(table.text);
  if (!read.ok) throw new Error(`seed ${seed}: ${read.says}`);
  const proposed = proposeMapping(read.table) as Record<string, unknown>;
  const truth: Record<string, unknown> = { ...table.truth, ...table.ways };
  const open = Object.keys(truth).filter((field) => isOpen(proposed[field], truth[field]));
  const wrong = Object.keys(truth).filter((field) => !open.includes(field) && !isRight(field, proposed[field], table));
  // a person puts right what is open, and takes the rest as it is proposed
  const mapping = mappingSchema.safeParse({
    categoryCode: null,
    ...proposed,
    ...Object.fromEntries(open.map((field) => [field, truth[field]])),
  });
  if (!mapping.success) return { seed, open, wrong, taken: [], missed: table.rows.length };
  const of = { currency: table.currency, digits: table.digits, today: '2026-12-01' };
  const { entries } = entriesOfTable(read.table, mapping.data, of);
  const sayings = new Set(table.rows.filter((row) => !row.pending || !hasStatus(table)).map((row) => sayRow(row)));
  const taken = entries.map((e) => `${e.bookedOn} ${e.settled} ${e.merchant}`).filter((said) => !sayings.has(said));
  return {
    seed,
    open,
    wrong,
    taken,
    missed: table.rows.filter((row) => !row.pending || !hasStatus(table)).length - entries.length,
  };
}
const sayRow = ({ booked, settled, merchant }: TrueRow): string => `${booked} ${settled} ${merchant}`;
const hasStatus = ({ text }: RandomTable): boolean => text.includes('Pending');

/** What has to be said by a person: a field that is not proposed though the table has it. */
const isOpen = (proposed: unknown, truth: unknown): boolean => (proposed ?? null) === null && truth !== null;

/** A sign that nothing hangs on, and an order where months are named, are right whatever is said of them. */
function isRight(field: string, proposed: unknown, { truth, ways, text }: RandomTable): boolean {
  if (field === 'spent') return truth.side !== null || truth.credit !== null || proposed === ways.spent;
  if (field === 'order' && /\d [A-Z][a-z]{2} \d{4}/.test(text)) return true;
  if (field in ways) return proposed === ways[field as keyof typeof ways];
  return (proposed ?? null) === truth[field];
}

describe(`${RUNS} tables laid out by somebody else`, () => {
  const results = Array.from({ length: RUNS }, (_, i) => tried(i + 1));
  it('take no charge wrongly, by any proposal, even where it is not looked at', () => {
    expect(
      results
        .filter((r) => r.taken.length > 0)
        .map(({ seed, wrong, taken }) => ({ seed, wrong, taken: taken.slice(0, 2) })),
    ).toEqual([]);
  });
  it('lose none, where what is open is said and nothing is wrong', () => {
    expect(results.filter((r) => r.wrong.length === 0 && r.missed !== 0).map(({ seed }) => seed)).toEqual([]);
  });
  it('are proposed wholly, or leave open what they do not tell', () => {
    const count = (part: (r: (typeof results)[number]) => unknown[]) => {
      const counts: Record<string, number> = {};
      for (const r of results) for (const field of part(r)) counts[String(field)] = (counts[String(field)] ?? 0) + 1;
      return counts;
    };
    const whole = results.filter((r) => r.open.length === 0 && r.wrong.length === 0).length;
    process.stdout.write(
      `wholly right ${whole} of ${RUNS}; open ${JSON.stringify(count((r) => r.open))}; wrong ${JSON.stringify(count((r) => r.wrong))}\n`,
    );
    expect((100 * whole) / RUNS).toBeGreaterThanOrEqual(WHOLLY_RIGHT);
  });
});
