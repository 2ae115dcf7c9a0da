import type { Line } from '../../../../core/documents/case.schema.ts';
import type { MakerView } from '../../../api/claims.ts';

/** Which lines are shown: all, those with a problem, or those without a receipt; and of them those with some words. */
export interface LineFilter {
  only: 'all' | 'problems' | 'no receipt';
  words: string;
}
export const NO_FILTER: LineFilter = { only: 'all', words: '' };

/** The lines of a claim that a filter lets through, in their order. */
export function filterLines(view: Pick<MakerView, 'document' | 'findings' | 'receipts'>, filter: LineFilter): Line[] {
  const words = filter.words.toLowerCase().split(/\s+/).filter(Boolean);
  const textOf = (line: Line) =>
    [line.id, line.date, line.merchant, line.description, line.category, line.amount, line.currency]
      .join(' ')
      .toLowerCase();
  return view.document.lines.filter(
    (line) =>
      (filter.only !== 'problems' || view.findings.some((f) => f.line === line.id && f.severity !== 'note'))
      && (filter.only !== 'no receipt' || !view.receipts[line.id])
      && words.every((word) => textOf(line).includes(word)),
  );
}
