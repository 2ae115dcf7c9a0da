/** A measured ratio to a baseline; `aim` is the most it should be. */
export interface Row {
  what: string;
  baseline: string;
  ratio: number;
  aim: number | null;
}

/** The median time of a piece of work, after warming up, in milliseconds. */
export async function median(work: () => unknown, rounds = 15): Promise<number> {
  for (let i = 0; i < 4; i += 1) await work();
  const times: number[] = [];
  for (let i = 0; i < rounds; i += 1) {
    const begun = performance.now();
    await work();
    times.push(performance.now() - begun);
  }
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)]!;
}
