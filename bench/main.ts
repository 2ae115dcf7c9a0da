import { benchAssess } from './benchAssess.ts';

/** npm run bench: every figure as a ratio to a baseline measured in the same run, with the aim beside it. */
const rows = [...benchAssess()];
for (const { what, baseline, ratio, aim } of rows)
  process.stdout.write(
    `${what.padEnd(64)} ${ratio.toFixed(2).padStart(7)} × ${baseline}${aim ? ` (aim: at most ${aim} ×)` : ''}\n`,
  );
