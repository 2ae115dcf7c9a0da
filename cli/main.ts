import { assessCommand } from './assessCommand.ts';
import { convertCommand } from './convertCommand.ts';
import { explainCommand } from './explainCommand.ts';
import { complain, print, Usage, type Command } from './options.ts';
import { schemaCommand } from './schemaCommand.ts';
import { splitCommand } from './splitCommand.ts';
import { verifyCommand } from './verifyCommand.ts';

const HELP = `Usage: ebbet COMMAND [OPTIONS] [OPERAND…]

Commands
  assess    compute claims: ebbet-case/1 documents in, ebbet-assessment/1 out, one a line
  explain   say how the figures of a claim's line came about
  split     divide an amount over weights, without losing a minor unit
  convert   convert an amount by the published rates of a book
  schema    print the JSON Schema of a document format
  verify    check that an exported history is whole and unchanged

ebbet COMMAND --help says more. Exit codes: 0 fine, 1 the history is not intact, 2 the input or the call is wrong.`;

const COMMANDS: Record<string, Command> = {
  assess: assessCommand,
  explain: explainCommand,
  split: splitCommand,
  convert: convertCommand,
  schema: schemaCommand,
  verify: verifyCommand,
};

/** Runs the command line; the result is the exit code. */
export async function main(args: string[]): Promise<number> {
  process.stdout.on('error', closedPipe);
  const [name, ...rest] = args;
  if (!name || name === '--help' || name === '-h') {
    await print(HELP);
    return name ? 0 : 2;
  }
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  if (!command) {
    complain(`ebbet: there is no command "${name}"; ebbet --help lists them`);
    return 2;
  }
  if (rest.includes('--help') || rest.includes('-h')) {
    await print(command.help);
    return 0;
  }
  return runCommand(name, command, rest);
}

async function runCommand(name: string, command: Command, args: string[]): Promise<number> {
  try {
    return await command.run(args);
  } catch (error) {
    if (!(error instanceof Usage)) throw error;
    complain(`ebbet ${name}: ${error.message}; ebbet ${name} --help says how it is called`);
    return 2;
  }
}

/** A reader that has seen enough (head, less) is no error. */
function closedPipe(error: NodeJS.ErrnoException): void {
  if (error.code !== 'EPIPE') throw error;
  process.exit(0);
}
