import type { Assessment, ShareRow } from '../assess/writeAssessment.ts';

/**
 * The share a journal row came from: its index among the shares of its line or item, or null for a row that is no
 * share's cost. Cost rows stand first, in the order of lines, items and shares; shares without ledger cost have none.
 */
export function traceRow(assessment: Pick<Assessment, 'lines' | 'journal'>, index: number): number | null {
  const row = assessment.journal[index];
  if (!row || row.line === null || row.taxCode !== null) return null;
  const part = assessment.lines.find((l) => l.id === row.line)?.parts.find((p) => p.item === row.item);
  const posted = (part?.shares ?? []).map((share, i) => ({ share, i })).filter(({ share }) => hasCost(share));
  const before = assessment.journal
    .slice(0, index)
    .filter((r) => r.line === row.line && r.item === row.item && r.taxCode === null);
  return posted[before.length]?.i ?? null;
}

const hasCost = (share: ShareRow): boolean => share.ledgerCost !== null && /[1-9]/.test(share.ledgerCost);
