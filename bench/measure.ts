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
