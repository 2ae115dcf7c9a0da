import type { TieKind } from './tie.types.ts';

/** The words claims are filtered by, written and asked for by the same functions. Example: facet.loose('tax') → "loose:tax". */
export const facet = {
  code: (dimension: string, code: string): string => `${dimension}:${code}`,
  category: (id: string): string => `category:${id}`,
  /** A kind of comparison that is not dealt with. */
  loose: (kind: TieKind): string => `loose:${kind}`,
  /** It can be cleared with others. */
  clean: 'clean',
} as const;
