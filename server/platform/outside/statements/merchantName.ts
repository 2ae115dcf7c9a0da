import { visible } from '../../../../core/numbers/visible.ts';

const LONGEST = 140;

/** The first of the names that says something, as it can be shown. */
export function merchantName(...names: readonly string[]): string {
  const name = names.map((n) => visible(n).trim()).find((n) => n !== '');
  return name?.slice(0, LONGEST) ?? 'No name given';
}
