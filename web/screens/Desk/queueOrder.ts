/** The order of the queue as last shown, so that the Sheet's comma and full stop go to its neighbours. */
const KEY = 'ebbet-queue';

export function rememberQueue(numbers: string[]): void {
  if (numbers.length > 0) sessionStorage.setItem(KEY, JSON.stringify(numbers));
}

/** The claim `step` places further in the queue, or null at its ends. */
export function neighbour(number: string, step: -1 | 1): string | null {
  const numbers = JSON.parse(sessionStorage.getItem(KEY) ?? '[]') as string[];
  const at = numbers.indexOf(number);
  return at < 0 ? null : (numbers[at + step] ?? null);
}
