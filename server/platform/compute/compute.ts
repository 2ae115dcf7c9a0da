import { availableParallelism } from 'node:os';
import { Refused } from '../http/refusal.ts';
import { HelperFault } from '../helpers/helper.ts';
import { createHelpers, type Helpers } from '../helpers/helpers.ts';
import { nodeProgram } from '../helpers/nodeProgram.ts';
import { computeHere, type Work } from './work.ts';

/**
 * Above this much work, counted by the caller, a computation would hold up other requests for more than some 60 ms. Below it,
 * half of that would be gone with carrying it to another process and back.
 */
const LARGE = 1000;
const SECONDS = 60;
const MEGABYTES = 1500;

let helpers: Helpers | null = null;

/**
 * Computes here what is small, and in a process of its own what is `size` of more than a few hundred parts, so that no
 * computation keeps the server from answering others. The same function, the same result; refused as busy when too much
 * waits.
 */
export async function compute<N extends keyof Work>(
  name: N,
  size: number,
  ...args: Parameters<Work[N]>
): Promise<ReturnType<Work[N]>> {
  const task = { name, args };
  if (size <= LARGE) return computeHere(task) as ReturnType<Work[N]>;
  helpers ??= createPool();
  const asked = { task, person: 'computing', short: true, weight: size, seconds: SECONDS };
  return (await helpers.ask(asked).catch(comeBack)) as ReturnType<Work[N]>;
}

/** A process that was ended over it may be well the next time; work that failed will fail again. */
function comeBack(error: unknown): never {
  throw error instanceof HelperFault && error.kind !== 'failed' ? new Refused('busy', { seconds: 5 }) : error;
}

/** Ends the processes; they are made again when there is need. */
export function endCompute(): void {
  helpers?.close();
  helpers = null;
}

function createPool(): Helpers {
  const most = availableParallelism() + 1;
  const program = nodeProgram(new URL('./process.ts', import.meta.url), 'compute');
  return createHelpers({ ...program, megabytes: MEGABYTES }, { most, mostLong: most, mostWaiting: 200 });
}
