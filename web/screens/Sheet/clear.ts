import type { ApiError } from '../../api/client.ts';
import type { ClaimView } from '../../api/claims.ts';
import { undoClear } from './bench.ts';
import type { Cell } from './cells.ts';
import type { SheetState } from './useSheet.ts';

interface Clearing {
  sheet: SheetState;
  view: ClaimView;
  kinds: readonly Cell['kind'][];
  setCell: (cell: Cell) => void;
}

/** Clears the claim where this person may; a clearing that is refused leads to what stands against it first. */
export function clearOn({ sheet, view, kinds, setCell }: Clearing): void {
  if (!view.may.includes('clear')) return;
  void sheet.run(`${view.claim.number} is cleared`, (revision) => sheet.acts.plain('clear', revision), {
    whole: true,
    undo: undoClear(view),
    refused: (failure) => {
      const against = cellOf(failure, kinds);
      if (against) setCell(against);
    },
  });
}

/** The cell a refusal names: its line, and its comparison or else the first of the line. */
export function cellOf(
  { numbers: { line, kind } }: Pick<ApiError, 'numbers'>,
  kinds: readonly Cell['kind'][],
): Cell | null {
  const at = kinds.find((k) => k === kind) ?? kinds[0];
  return typeof line === 'string' && at ? { line, kind: at } : null;
}
