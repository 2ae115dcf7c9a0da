import { parseArgs } from 'node:util';
import { assess } from '../core/assess/assess.ts';
import { readCase, writePath } from '../core/formats/readCase.ts';
import { documentsOf, lineOf, type Source } from './documents.ts';

const HELP = `Usage: ebbet assess [--jsonl] [FILE…]

Reads ebbet-case/1 documents from the files, or from standard input when none is named (or for -), and prints one
ebbet-assessment/1 a line, in order.

  --jsonl   every line of the input is a document of its own

Exit code 0 when all are valid. An invalid document gives one line FILE:LINE path: what is wrong on standard error and
exit code 2 at the end; the other documents are assessed all the same.
`;

/** ebbet assess: see HELP. */
export async function assessCommand(args: string[]): Promise<number> {
  let options;
  try {
    options = parseArgs({
      args,
      allowPositionals: true,
      options: { jsonl: { type: 'boolean' }, help: { type: 'boolean', short: 'h' } },
    });
  } catch (error) {
    process.stderr.write(`ebbet assess: ${(error as Error).message}\n`);
    return 2;
  }
  if (options.values.help) {
    process.stdout.write(HELP);
    return 0;
  }
  let code = 0;
  for await (const source of documentsOf(options.positionals, options.values.jsonl === true)) {
    const result = assessSource(source);
    if ('error' in result) {
      code = 2;
      process.stderr.write(`${result.error}\n`);
    } else if (!process.stdout.write(`${result.output}\n`)) await drained();
  }
  return code;
}

function assessSource(source: Source): { output: string } | { error: string } {
  const at = (line: number, what: string) => ({ error: `${source.file}:${line} ${what.replaceAll(/\s+/g, ' ')}` });
  if ('unreadable' in source) return at(source.line, `document: ${source.unreadable}`);
  const read = readCase(source.json);
  if (read.ok) return { output: JSON.stringify(assess(read.case)) };
  const { path, message } = read.problems[0]!;
  return at(lineOf(source, path), `${writePath(path)}: ${message}`);
}

const drained = () => new Promise((resolve) => process.stdout.once('drain', resolve));
