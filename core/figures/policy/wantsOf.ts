import type { Book } from '../../documents/case.schema.ts';
import type { Limit, LimitOf } from '../../documents/rules.schema.ts';

const PER = { item: 'each', night: 'a night', head: 'a head', day: 'a day', trip: 'on one claim' } as const;

/**
 * What a limit wants, as a sentence for whoever decides: what it is about, where, how much, from which day and until when.
 * Example: a cap of 120.00 EUR a night for lodging in PT until a day → "Lodging in PT is limited to 120.00 EUR a night
 * until 2026-12-31."
 */
export function wantsOf(limit: Limit, categories: Book['categories']): string {
  const says = sentenceOf(limit, spendingOf(limit, categories));
  return `${says[0]!.toUpperCase()}${says.slice(1)}${daysOf(limit)}.`;
}

function sentenceOf(limit: Limit, what: string): string {
  switch (limit.kind) {
    case 'cap':
      return `${what} is limited to ${money(limit.cap)} ${PER[limit.per]}${tolerated(limit.tolerance)}`;
    case 'near':
      return `${limit.charges} charges of one merchant in a day within ${limit.within} % of ${money(limit.cap)} are looked at`;
    case 'receipt':
      return `${what} above ${money(limit.above)} needs a receipt`;
    case 'fields':
      return `${what} needs ${[...limit.fields, ...namesOf(limit)].join(' and ')}`;
    case 'age':
      return `${what} is claimed within ${limit.days} days`;
    case 'weekend':
      return `${what} on a weekend is looked at`;
    case 'plan':
      return `${what}${limit.above ? ` above ${money(limit.above)}` : ''} needs an approved plan`;
    case 'text':
      return `a description has at most ${limit.longest} characters, for the ledger`;
    default:
      return limit satisfies never;
  }
}

const namesOf = ({ fields, namesUnder }: LimitOf<'fields'>): string[] =>
  namesUnder && fields.length === 0 ? [`the names of fewer than ${namesUnder} people`] : [];
const money = ({ amount, currency }: { amount: string; currency: string }): string => `${amount} ${currency}`;
const tolerated = (percent: string | null | undefined): string =>
  percent ? `, and ${percent} % more is tolerated` : '';

function spendingOf({ categories, countries }: Limit, known: Book['categories']): string {
  const names = (categories ?? []).map((id) => known.find((c) => c.id === id)?.name ?? id);
  const where = countries?.length ? ` in ${listed(countries)}` : '';
  return `${names.length > 0 ? listed(names) : 'spending'}${where}`;
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`;

function daysOf({ from, to }: Limit): string {
  if (from && to) return ` from ${from} until ${to}`;
  return from ? ` from ${from}` : to ? ` until ${to}` : '';
}
