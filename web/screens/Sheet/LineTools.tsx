import type { ClaimView } from '../../api/claims.ts';
import { KeyHint } from '../../parts/keys.tsx';
import { BENCH_NAMES, openedBench, type BenchKind } from './bench.ts';
import type { SheetState } from './useSheet.ts';

const KINDS: readonly BenchKind[] = ['coding', 'split', 'tax', 'items', 'allowed', 'facts'];

/** What of a line can be corrected here, each with its key. */
export function LineTools({ sheet, view, line }: { sheet: SheetState; view: ClaimView; line: string }) {
  const whole = view.document.claim.lines.find((l) => l.id === line)!;
  const kinds = KINDS.filter((kind) => (kind === 'items' ? whole.items?.length : true));
  if (whole.personal) return null;
  return (
    <div role="group" aria-label={`Correct line ${line}`} className="mt-2 flex flex-wrap gap-x-3 gap-y-1 text-sm">
      <span className="quiet">Correct</span>
      {kinds.map((kind) => (
        <button
          key={kind}
          type="button"
          className="link min-h-6 px-0.5"
          onClick={() => sheet.setBench(openedBench(view, line, kind))}
        >
          {BENCH_NAMES[kind]} <KeyHint of={kind} />
        </button>
      ))}
    </div>
  );
}
