import { assessCommand } from './assessCommand.ts';

const HELP = `Usage: ebbet COMMAND [OPTIONS] [FILE…]

Commands
  assess    compute claims: ebbet-case/1 documents in, ebbet-assessment/1 out, one a line

ebbet COMMAND --help says more.
`;

const COMMANDS: Record<string, (args: string[]) => Promise<number>> = { assess: assessCommand };

/** Runs the command line; the result is the exit code (0 fine, 1 the machine failed, 2 the input is wrong). */
export async function main(args: string[]): Promise<number> {
  process.stdout.on('error', closedPipe);
  const [name, ...rest] = args;
  if (!name || name === '--help' || name === '-h') {
    process.stdout.write(HELP);
    return name ? 0 : 2;
  }
  const command = COMMANDS[name];
  if (command) return command(rest);
  process.stderr.write(`ebbet: there is no command "${name}"; ebbet --help lists them\n`);
  return 2;
}

/** A reader that has seen enough (head, less) is no error. */
function closedPipe(error: NodeJS.ErrnoException): void {
  if (error.code !== 'EPIPE') throw error;
  process.exit(0);
}
