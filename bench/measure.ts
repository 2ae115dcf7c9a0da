import { Bench } from 'tinybench';

/** A measured ratio to a baseline; `aim` is the most it should be. */
export interface Row {
  what: string;
  baseline: string;
  ratio: number;
  aim: number | null;
}

/** The median time of a piece of work, after warming up, in milliseconds. */
export async function median(work: () => unknown, rounds = 15): Promise<number> {
  const bench = new Bench({ iterations: rounds, time: 0, warmupIterations: 4, warmupTime: 0, throws: true });
  bench.add('work', async () => {
    await work();
  });
  const [task] = await bench.run();
  const result = task?.result;
  if (result?.state !== 'completed') throw new Error(`the measurement ended as ${result?.state}`);
  return result.latency.p50;
}

const WARM = 10;

/** Times of several pieces of work in milliseconds, in order, done in turns so that a busy moment of the machine meets all. */
export async function inTurns<K extends string>(
  works: Record<K, () => Promise<unknown>>,
  rounds: number,
): Promise<Record<K, number[]>> {
  const names = Object.keys(works) as K[];
  const times = Object.fromEntries(names.map((name) => [name, []])) as unknown as Record<K, number[]>;
  for (let round = -WARM; round < rounds; round += 1)
    for (const name of names) {
      const began = performance.now();
      await works[name]();
      if (round >= 0) times[name].push(performance.now() - began);
    }
  for (const name of names) times[name].sort((a, b) => a - b);
  return times;
}

/** The time below which a part of them are: 0.5 is the median. @param times in order */
export const share = (times: readonly number[], part: number): number => times[Math.floor(times.length * part)]!;
