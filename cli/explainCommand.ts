import type { Explanation } from '../core/explain/explain.types.ts';
import { explainLine } from '../core/explain/explainLine.ts';
import { documentsOf, readCaseOf } from './documents.ts';
import { complain, print, readOptions, Usage, type Command } from './options.ts';

const help = `Usage: ebbet explain --line ID [--json] [FILE]

Says how every figure of a line came about: inputs, rule, rates with source and date, exact and rounded result. Reads one
ebbet-case/1 from the file, or from standard input.

  --line ID   the line
  --json      one JSON object a figure, instead of text

Exit code 2 when the document is invalid or has no such line.`;

async function run(args: string[]): Promise<number> {
  const { values, operands } = readOptions(args, { line: { type: 'string' }, json: { type: 'boolean' } });
  if (!values.line) throw new Usage('--line is missing');
  if (operands.length > 1) throw new Usage('it explains one document at a time');
  for await (const source of documentsOf(operands, false)) {
    const read = readCaseOf(source);
    const steps = 'case' in read ? explainLine(read.case, values.line) : undefined;
    if (!steps) {
      complain('error' in read ? read.error : `${source.file}:1 claim.lines: there is no line "${values.line}"`);
      return 2;
    }
    for (const step of steps) await print(values.json ? JSON.stringify(step) : sentence(step));
  }
  return 0;
}

function sentence({ figure, item, share, rule, inputs, rates, formula, exact, result, currency }: Explanation): string {
  const where = [item && `item ${item}`, share !== null && `share ${share + 1}`].filter(Boolean).join(', ');
  const facts = Object.entries(inputs).map(([name, value]) => `${name} ${value}`);
  const quotes = rates.map(
    (r) =>
      `    1 ${r.from} = ${r.reciprocal ? `1 ÷ ${r.quoted}` : r.quoted} ${r.to}, published ${r.date}${r.source ? ` (${r.source})` : ''}`,
  );
  return [
    `${figure}${where ? ` of ${where}` : ''} = ${result ?? 'cannot be computed'} ${result === null ? '' : currency}`.trimEnd(),
    `    rule ${rule}: ${formula}; ${facts.join(', ')}`,
    ...quotes,
    ...(exact === null ? [] : [`    exactly ${exact}`]),
  ].join('\n');
}

export const explainCommand: Command = { help, run };
