import { z } from 'zod';
import { referenceConverter } from '../core/figures/currency/converter.ts';
import { minorUnits } from '../core/numbers/minorUnits.ts';
import { rateTable } from '../core/figures/currency/rateTable.ts';
import { isIsoDate } from '../core/numbers/isoDate.ts';
import { bookSchema } from '../core/documents/case.schema.ts';
import { firstProblem, writePath } from '../core/documents/readCase.ts';
import { fromMinor, readAmount } from '../core/numbers/amount.ts';
import { documentsOf, lineOf } from './documents.ts';
import { complain, print, readOptions, Usage, type Command } from './options.ts';

const help = `Usage: ebbet convert AMOUNT FROM TO --date DATE [FILE]

Converts an amount by the published rates of a date: a direct quote, else the reciprocal, else over the pivot; never
older than the book allows. Prints the amount, then the quotes it used. Rounded once, half away from zero.

FILE, or standard input, is an ebbet-case/1 (its book is used) or a document {"rates": […], "pivot": …, "maxRateAge": …}.
Exit code 2 when there is no rate.`;

const ratesSchema = bookSchema.pick({ rates: true, pivot: true, maxRateAge: true });
const wrapped = z.looseObject({ book: z.looseObject({}) });

async function run(args: string[]): Promise<number> {
  const { values, operands } = readOptions(args, { date: { type: 'string' } });
  const [amount, from, to, ...files] = operands;
  if (!amount || !from || !to || files.length > 1)
    throw new Usage('it needs an amount, two currencies and at most one file');
  if (!values.date || !isIsoDate(values.date)) throw new Usage('--date must be a calendar date written YYYY-MM-DD');
  for (const currency of [from, to])
    if (minorUnits(currency) === null) throw new Usage(`"${currency}" is not an ISO 4217 currency with minor units`);
  const minor = readAmount(amount, from);
  if (minor === null) throw new Usage(`"${amount}" is not an amount with the decimals of ${from}`);
  for await (const source of documentsOf(files, false)) {
    if ('unreadable' in source) return fail(`${source.file}:${source.line} document: ${source.unreadable}`);
    const inCase = wrapped.safeParse(source.json);
    const { rates, pivot, maxRateAge } = (inCase.success ? inCase.data.book : source.json) as z.infer<
      typeof ratesSchema
    >;
    const problem = firstProblem(ratesSchema, { rates, pivot, maxRateAge });
    if (problem)
      return fail(`${source.file}:${lineOf(source, problem.path)} ${writePath(problem.path)}: ${problem.message}`);
    const { convert, rate } = referenceConverter(rateTable({ rates, pivot, maxRateAge }), from, to, values.date);
    const result = convert(minor);
    if (result === null)
      return fail(
        `ebbet convert: there is no rate from ${from} to ${to} at most ${maxRateAge ?? 7} days old on ${values.date}`,
      );
    await print(`${fromMinor(result, to)} ${to}`);
    for (const { quote, reciprocal } of rate?.legs ?? [])
      await print(
        `1 ${quote.from} = ${quote.rate} ${quote.to}${reciprocal ? ', turned round' : ''}, ${quote.date}${quote.source ? `, ${quote.source}` : ''}`,
      );
  }
  return 0;
}

function fail(text: string): number {
  complain(text);
  return 2;
}

export const convertCommand: Command = { help, run };
