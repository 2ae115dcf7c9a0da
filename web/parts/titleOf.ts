import { PLACES } from './places.ts';

/** Pages that no place leads to. */
const OTHERS: Record<string, string> = {
  messages: 'Messages',
  account: 'Your account',
};
const NAMED: Record<string, string> = {
  '/advances/register': 'Register of advances',
  '/gather/receipts': 'Receipts',
  '/gather/charges': 'Card charges',
  '/gather/pairs': 'Pairs',
  '/gather/cards': 'Cards by month',
  '/gather/statements': 'Statements',
};

/** What a page is called in the browser's tab: the record, then the place. Example: /desk/C-1009 → "C-1009 · Desk · Ebbet". */
export function titleOf(path: string): string {
  const [place = '', ...rest] = path.split('/').filter(Boolean);
  const name = PLACES.find((p) => p.path === `/${place}`)?.name ?? OTHERS[place];
  const record = NAMED[`/${[place, ...rest].join('/')}`] ?? rest.at(-1);
  return [record && decodeURIComponent(record), name, 'Ebbet'].filter(Boolean).join(' · ');
}
