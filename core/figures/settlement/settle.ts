import { applyAdvance, uncoveredLines, unknown } from './applyAdvance.ts';
import type { AppliedAdvance, Figure, LineFigures, OpenCase, SettlementFigures } from '../figures.types.ts';
import { finding, type Finding } from '../../documents/finding.ts';
import { sumKnown, toMinor } from '../../numbers/amount.ts';

/**
 * What the claimant is owed, in minor units of the claim's currency: own lines, less private spending on a company
 * card, less advances. A negative due is receivable from the person. Company-paid amounts are cost but not due. Own
 * lines of 100.00, private on a card 30.00, no advance → due 70.00; the two exchanged → -70.00.
 */
export function settle(open: OpenCase, lines: readonly LineFigures[]): SettlementFigures {
  const due = dueOf(lines, 'claimAmount');
  const findings: Finding[] = [];
  const advances = applyAll(open, lines, due, findings);
  const applied = sumKnown(advances.map((a) => a.applied));
  const left = due === null || applied === null ? null : due - applied;
  return {
    due,
    advances,
    payable: left === null ? null : left > 0n ? left : 0n,
    receivable: due === null ? null : due < 0n ? -due : 0n,
    findings,
  };
}

/**
 * Own lines less personal parts of card lines, in the claim's or the ledger's currency; null when one is not known.
 * Own 10000n and a private card part of 3000n → 7000n; no lines → 0n.
 */
export function dueOf(lines: readonly LineFigures[], column: 'claimAmount' | 'ledgerAmount'): Figure {
  const own = sumKnown(lines.filter((l) => l.line.paidBy === 'own').map((l) => l[column]));
  const personal = sumKnown(lines.flatMap((l) => l.parts.filter((p) => p.personal).map((p) => p[column])));
  return own === null || personal === null ? null : own - personal;
}

function applyAll(open: OpenCase, lines: readonly LineFigures[], due: Figure, findings: Finding[]): AppliedAdvance[] {
  const wanted = open.case.claim.advances ?? [];
  const rows = wanted.map((w) => ({ ...w, row: open.advances.on(w.advance, open.case.postingDate)! }));
  if (due === null) return rows.map(({ row }) => unknown(row));
  const uncovered = uncoveredLines(lines);
  let rest: Figure = due;
  return rows.map(({ row, upTo }) => {
    if (rest === null) return unknown(row);
    const cap = upTo == null ? null : toMinor(upTo, open.claimCurrency);
    const { figures, rateMissing } = applyAdvance(open, row, cap, rest, uncovered);
    rest = figures.applied === null ? null : rest - figures.applied;
    if (rateMissing) findings.push(advanceRateMissing(open, row.currency));
    return figures;
  });
}

function advanceRateMissing(open: OpenCase, from: string): Finding {
  const { postingDate, book } = open.case;
  const numbers = { from, to: open.claimCurrency, date: postingDate, days: String(book.maxRateAge ?? 7) };
  return finding('rate-missing', { line: null, item: null }, numbers);
}
