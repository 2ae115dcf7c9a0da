import type { ClaimView, ShownQuery } from '../../api/claims.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { sayMoment } from '../../words/sayEvent.ts';
import type { Cell } from './cells.ts';
import type { SheetState } from './useSheet.ts';

interface ThreadProps {
  sheet: SheetState;
  view: ClaimView;
  cell: Cell;
}

/** What was asked about a line and answered, in the order it was said; it is part of the evidence. */
export function Thread({ sheet, view, cell }: ThreadProps) {
  const asked = view.queries.filter((q) => q.line === cell.line);
  if (asked.length === 0) return null;
  return (
    <ol aria-label={`Questions about line ${cell.line}`} className="mt-2 grid gap-2">
      {asked.map((query) => (
        <li key={query.id} className="border-l-2 border-primary pl-2 text-sm">
          <Asked query={query} here={cell.kind} />
          {query.answer && (
            <p className="mt-0.5 pl-3">
              <strong>{query.answer.by}:</strong> {query.answer.text}{' '}
              <span className="quiet text-xs">{sayMoment(query.answer.at)}</span>
            </p>
          )}
          {query.files.length > 0 && (
            <div className="pl-3">
              <Attachments of="the answer" attachments={query.files} />
            </div>
          )}
          {isOpen(query) && view.may.includes('dropQuery') && query.version === view.claim.version && (
            <button
              type="button"
              className="link text-xs"
              onClick={() =>
                void sheet.run('The question is taken back', (revision) => sheet.acts.dropQuery(query.id, revision))
              }
            >
              Take back
            </button>
          )}
        </li>
      ))}
    </ol>
  );
}

const isOpen = (query: ShownQuery): boolean => query.answer === null && !query.takenBack;

function Asked({ query, here }: { query: ShownQuery; here: Cell['kind'] }) {
  return (
    <p className={query.takenBack ? 'line-through' : ''}>
      <strong>{query.by}</strong>
      {query.asks === 'approver' && ' to who approved it'}
      {query.kind && query.kind !== here && ` about ${query.kind}`}: {query.text}{' '}
      <span className="quiet text-xs">{standingOf(query)}</span>
    </p>
  );
}

/** Where a question stands, in a word or two. */
function standingOf({ sent, answer, takenBack, at }: ShownQuery): string {
  if (takenBack) return 'taken back';
  if (!sent) return 'not sent yet';
  return answer ? sayMoment(at) : `not answered, asked ${sayMoment(at)}`;
}
