/** The order of the queue as last shown, so that the Sheet's comma and full stop go on in it. */
const KEY = 'ebbet-queue';

export function rememberQueue(numbers: string[]): void {
  if (numbers.length > 0) sessionStorage.setItem(KEY, JSON.stringify(numbers));
}

const remembered = (): string[] => JSON.parse(sessionStorage.getItem(KEY) ?? '[]') as string[];

/** The claim before one in the queue, or null at its beginning. */
export function before(number: string): string | null {
  const numbers = remembered();
  return numbers[numbers.indexOf(number) - 1] ?? null;
}

/** The claims that follow one in the queue, the next first. */
export function after(number: string): string[] {
  const numbers = remembered();
  const at = numbers.indexOf(number);
  return at < 0 ? [] : numbers.slice(at + 1);
}
