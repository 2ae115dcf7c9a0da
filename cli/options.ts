import { parseArgs, type ParseArgsConfig } from 'node:util';

/** A command of the command line: its help, and what it does; the result is the exit code. */
export interface Command {
  help: string;
  run(args: string[]): Promise<number>;
}

/** What is wrong with how a command was called. */
export class Usage extends Error {}

type Options = NonNullable<ParseArgsConfig['options']>;

/**
 * Options and operands of a command. An operand may be a negative number. Anything unknown throws a Usage, which main
 * turns into one line and exit code 2.
 */
export function readOptions<T extends Options>(args: string[], options: T) {
  const numbers = new Map<string, string>();
  const safe = args.map((arg, i) => {
    if (!/^-\d/.test(arg)) return arg;
    numbers.set(`\u0000${i}`, arg);
    return `\u0000${i}`;
  });
  try {
    const { values, positionals } = parseArgs({
      args: safe,
      options: { ...options, help: { type: 'boolean', short: 'h' } },
      allowPositionals: true,
    });
    return {
      values: values as ReturnType<typeof parseArgs<{ options: T & { help: { type: 'boolean' } } }>>['values'],
      operands: positionals.map((p) => numbers.get(p) ?? p),
    };
  } catch (error) {
    throw new Usage((error as Error).message);
  }
}

/** Writes one line of output, waiting while the reader is slow. */
export async function print(text: string): Promise<void> {
  if (!process.stdout.write(`${text}\n`)) await new Promise((resolve) => process.stdout.once('drain', resolve));
}

export const complain = (text: string): void => void process.stderr.write(`${text}\n`);
