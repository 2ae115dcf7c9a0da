import type { Row } from './measure.ts';

/**
 * npm run bench: every time as a ratio to a baseline measured in the same run, with the aim beside it. A word runs one
 * part alone: npm run bench pages. Each part is loaded when its turn comes, so that none runs beside another's packages.
 */
const PARTS: Record<string, () => Promise<() => Iterable<Row> | AsyncIterable<Row>>> = {
  pages: async () => (await import('./pages/benchPages.ts')).benchPages,
  sheet: async () => (await import('./benchSheet.ts')).benchSheet,
  cell: async () => (await import('./benchCell.ts')).benchCell,
  assess: async () => (await import('./benchAssess.ts')).benchAssess,
  matching: async () => (await import('./benchMatching.ts')).benchMatching,
  duplicates: async () => (await import('./benchDuplicates.ts')).benchDuplicates,
};
const only = process.argv[2];
for (const [name, part] of Object.entries(PARTS))
  if (!only || name === only) for await (const row of (await part())()) printRow(row);
if (only && only !== 'reading') process.exit(0);

/** Aims for reading, over all sets, in percent. */
const AIMS: Partial<Record<string, number>> = { amount: 95, date: 93, currency: 93, tax: 85, card: 70 };
const { benchHard, benchReading, percentOf } = await import('./reading/benchReading.ts');
const { tallies, misses } = await benchReading(process.argv[3]);
const hard = await benchHard();
const wrong = [
  ...misses.filter((m) => m.grade === 'sure but wrong').map((m) => `${m.set}: ${m.at}, ${m.field} ${m.says}`),
  ...hard.sure,
];
print(`\nSure and wrong: ${wrong.length} (aim: none)`);
for (const line of wrong) print(line);
print(`Two papers in one picture, told apart: ${hard.apart} of ${hard.count}`);
print('\nDrawn receipts read, in percent; a field that is wrong and called sure is taken off twice');
for (const tally of tallies) printTally(tally.set, tally.field, percentOf(tally), tally.count);
for (const field of new Set(tallies.map((t) => t.field))) {
  const of = tallies.filter((t) => t.field === field);
  const count = of.reduce((sum, t) => sum + t.count, 0);
  const percent = of.reduce((sum, t) => sum + percentOf(t) * t.count, 0) / count;
  printTally('all', field, percent, count, AIMS[field]);
}
print('\nMisread or not found: layout, country, harm');
for (const m of misses) print(`${m.set}: ${m.at}, ${m.field} ${m.grade} ${m.says}`);
process.exit(0);

function printRow({ what, baseline, ratio, aim }: Row): void {
  print(`${what.padEnd(64)} ${ratio.toFixed(2).padStart(7)} × ${baseline}${aim ? ` (aim: at most ${aim} ×)` : ''}`);
}

function printTally(set: string, field: string, percent: number, count: number, aim?: number): void {
  const note = aim ? ` (aim: ${aim})` : '';
  print(`${set.padEnd(40)} ${field.padEnd(10)} ${percent.toFixed(1).padStart(5)} of ${count}${note}`);
}

function print(line: string): void {
  process.stdout.write(`${line}\n`);
}
