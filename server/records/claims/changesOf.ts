import type { Claim } from '../../../core/documents/case.schema.ts';
import { canonical } from '../../../core/numbers/canonical.ts';

const FIELDS = ['category', 'coding', 'split', 'tax', 'items', 'country', 'paidBy', 'rate'] as const;
export interface FieldChange {
  line: string;
  field: (typeof FIELDS)[number];
  from: unknown;
  to: unknown;
}

/**
 * What finance changed of the lines as they were submitted, field by field; nothing for a claim that never was. What was cut
 * stands at the line itself with its reason.
 */
export function changesOf(submitted: Claim | null, now: Claim): FieldChange[] {
  return now.lines.flatMap((line) => {
    const before = submitted?.lines.find((l) => l.id === line.id);
    if (!before) return [];
    const plain = (of: typeof line, field: (typeof FIELDS)[number]) => canonical(uncut(of, field));
    const changed = FIELDS.filter((field) => plain(before, field) !== plain(line, field));
    return changed.map((field) => ({ line: line.id, field, from: before[field] ?? null, to: line[field] ?? null }));
  });
}

/** A field as it is compared: items without what was cut of them, the published rate like none said. */
function uncut(line: Claim['lines'][number], field: (typeof FIELDS)[number]): unknown {
  if (field === 'items') return line.items?.map(({ cut: _, ...item }) => item) ?? null;
  if (field === 'rate' && line.rate?.kind === 'reference') return null;
  return line[field] ?? null;
}

/** The lines that are not as they were submitted, what was cut included, in their order. */
export function correctedLines(submitted: Claim | null, now: Claim): string[] {
  const changed = new Set(changesOf(submitted, now).map((c) => c.line));
  return now.lines.flatMap((l) => (changed.has(l.id) || l.cut || l.items?.some((i) => i.cut) ? [l.id] : []));
}
