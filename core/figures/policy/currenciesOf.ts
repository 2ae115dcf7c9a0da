import type { Claim } from '../../documents/case.schema.ts';
import type { Limit } from '../../documents/rules.schema.ts';
import { holdsOn } from '../../numbers/isoDate.ts';

/**
 * The currencies in which limits that may look at a claim are stated: a case needs rates to them although no line is in
 * one. Example: a hotel night in USD under a cap of 110 GBP → ["GBP"].
 */
export function currenciesOf(limits: readonly Limit[], { lines }: Pick<Claim, 'lines'>): string[] {
  const categories = new Set(lines.flatMap((l) => [l.category, ...(l.items ?? []).map((i) => i.category)]));
  const applies = (limit: Limit) =>
    lines.some((l) => holdsOn(limit, l.date)) && (!limit.categories || limit.categories.some((c) => categories.has(c)));
  return [...new Set(limits.filter(applies).flatMap((limit) => statedIn(limit) ?? []))];
}

function statedIn(limit: Limit): string | undefined {
  switch (limit.kind) {
    case 'cap':
    case 'near':
      return limit.cap.currency;
    case 'receipt':
    case 'plan':
      return limit.above?.currency;
    case 'fields':
    case 'age':
    case 'weekend':
    case 'text':
      return undefined;
    default:
      return limit satisfies never;
  }
}
