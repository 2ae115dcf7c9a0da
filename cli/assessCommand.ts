import { assess } from '../core/assess/assess.ts';
import { documentsOf, readCaseOf } from './documents.ts';
import { complain, print, readOptions, type Command } from './options.ts';

const help = `Usage: ebbet assess [--jsonl] [FILE…]

Reads ebbet-case/1 documents from the files, or from standard input when none is named (or for -), and prints one
ebbet-assessment/1 a line, in order.

  --jsonl   every line of the input is a document of its own

Exit code 0 when all are valid. An invalid document gives one line FILE:LINE path: what is wrong on standard error and
exit code 2 at the end; the other documents are assessed all the same.`;

async function run(args: string[]): Promise<number> {
  const { values, operands } = readOptions(args, { jsonl: { type: 'boolean' } });
  let code = 0;
  for await (const source of documentsOf(operands, values.jsonl === true)) {
    const read = readCaseOf(source);
    if ('error' in read) {
      code = 2;
      complain(read.error);
    } else await print(JSON.stringify(assess(read.case)));
  }
  return code;
}

export const assessCommand: Command = { help, run };
