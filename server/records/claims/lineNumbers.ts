/**
 * The last number and place in use among a claim's lines. A number is given once: what the history says of line 3 stays
 * about that line when it was taken off, so `lastLine`, the highest one ever given, counts too.
 */
export function lastOf(lastLine: number, lines: readonly { id: string; position: number }[]) {
  const numbers = lines.map((line) => (/^\d+$/.test(line.id) ? Number(line.id) : 0));
  return { number: Math.max(lastLine, ...numbers), position: Math.max(-1, ...lines.map((line) => line.position)) };
}
