import type { ClaimView } from '../../api/claims.ts';
import { KeyHint } from '../../parts/keys.tsx';
import { Strip } from './Strip.tsx';
import type { SheetState } from './useSheet.ts';

/** Sends what is pinned, where something is. */
export function sendOn({ sheet, view }: { sheet: SheetState; view: ClaimView }): void {
  if (!view.may.includes('sendQueries') || pinned(view) === 0) return;
  void sheet.run(
    'The questions are sent; the claim waits for the answers',
    (revision) => sheet.acts.plain('sendQueries', revision),
    { whole: true },
  );
}

const pinned = (view: ClaimView): number => view.queries.filter((q) => !q.sent).length;

/** What is asked and not dealt with: questions still to be sent, and those that wait for an answer. */
export function Pending({ sheet, view }: { sheet: SheetState; view: ClaimView }) {
  const unsent = pinned(view);
  const open = view.queries.filter((q) => q.sent && !q.answer && !q.takenBack && q.version === view.claim.version);
  const waits = view.claim.waitsFor;
  return (
    <>
      {unsent > 0 && view.may.includes('sendQueries') && (
        <Strip tone="border-primary">
          {count(unsent, 'question is', 'questions are')} pinned and not sent.
          <button
            type="button"
            className="btn btn-primary btn-xs mx-2"
            disabled={sheet.busy}
            onClick={() => sendOn({ sheet, view })}
          >
            Send {unsent === 1 ? 'it' : 'them'} <KeyHint of="send" />
          </button>
          <span className="quiet text-sm">The claim stays in review; returning it sends them too.</span>
        </Strip>
      )}
      {waits.length > 0 && (
        <Strip tone="border-warning">
          Waits for {waits.join(' or ')} to answer {count(open.length, 'question', 'questions')}, at{' '}
          {[...new Set(open.map((q) => `line ${q.line}`))].join(', ')}.
        </Strip>
      )}
    </>
  );
}

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;
