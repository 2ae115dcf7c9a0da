import { bareRoute } from './bareRoute.ts';
import { statementsOf } from './statementsOf.ts';

const WARM = 10;
const ROUNDS = 100;

/** Milliseconds of a page, and of a server that runs the same SQL, sends the same bytes and does nothing else. */
export interface Beside {
  middle: number;
  /** p95. */
  late: number;
  bareLate: number;
}

/** A page and its bare route, asked for in turns, so that a busy moment of the machine meets both. */
export async function besideBare(read: () => Promise<string>, connectionString: string): Promise<Beside> {
  const body = await read();
  const bare = await bareRoute(connectionString, await statementsOf(read), body);
  const times: { page: number; bare: number }[] = [];
  for (let i = 0; i < WARM + ROUNDS; i += 1)
    times.push({ page: await timeOf(read), bare: await timeOf(async () => (await fetch(bare.url)).text()) });
  await bare.close();
  const [page, alone] = [times.slice(WARM).map((t) => t.page), times.slice(WARM).map((t) => t.bare)];
  return { middle: share(page, 0.5), late: share(page, 0.95), bareLate: share(alone, 0.95) };
}

async function timeOf(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

const share = (times: readonly number[], part: number): number =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * part)]!;
