import type { MakerView } from '../../../api/claims.ts';
import { drafts, useRecurring, type RecurringLines } from '../../../api/drafts.ts';
import { failed } from '../../../parts/failed.ts';
import { Money } from '../../../parts/Money.tsx';
import { toast } from '../../../parts/toast.tsx';
import type { Draft } from './useDraft.ts';

interface DueLinesProps {
  view: MakerView;
  draft: Draft;
}

/** Lines that come again and are due: put on the claim only when somebody says so. */
export function DueLines({ view, draft }: DueLinesProps) {
  const { data, mutate } = useRecurring(view.claim.number);
  const due = data?.lines.filter((l) => l.due.length > 0) ?? [];
  if (due.length === 0) return null;
  return (
    <section aria-label="Due again" className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-2 text-sm">
      <h2 className="font-semibold">Due again</h2>
      <ul>
        {due.map((one) => (
          <DueLine key={one.id} {...{ view, draft, one }} onDealt={() => void mutate()} />
        ))}
      </ul>
    </section>
  );
}

function DueLine({
  view,
  draft,
  one,
  onDealt,
}: DueLinesProps & { one: RecurringLines['lines'][number]; onDealt: () => void }) {
  const { number } = view.claim;
  const { id, every, line, due } = one;
  const [on, ...later] = due as [string, ...string[]];
  const name = line.merchant ?? line.description ?? 'a line';
  const done = (text: string) => (error: Error | null) => {
    onDealt();
    if (error) failed(error);
    else toast({ text });
  };
  const deal = (take: boolean) =>
    draft.run(
      'a line that comes again',
      (revision) => drafts.deal(number, revision, id, { on, take }),
      done(take ? `${name} of ${on} is on the claim` : `${name} of ${on} is passed over`),
    );
  const end = () =>
    draft.run(
      'a line that comes again',
      (revision) => drafts.endRecurring(number, revision, id),
      done(`${name} does not come again`),
    );
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-base-300 py-1.5 first:border-t-0">
      <span className="min-w-0 flex-1">
        <span className="font-medium">{name}</span>{' '}
        <span className="quiet">
          every {every}, due {on}
        </span>
        {later.length > 0 && <span className="quiet"> and {later.length} more</span>}
      </span>
      <Money amount={line.amount.amount} currency={line.amount.currency} strong />
      <span className="flex gap-2">
        <button type="button" className="btn btn-primary btn-xs" onClick={() => deal(true)}>
          Put it on the claim
        </button>
        <button type="button" className="btn btn-xs" onClick={() => deal(false)}>
          Not this time
        </button>
        <button type="button" className="btn btn-xs" onClick={end}>
          Never again
        </button>
      </span>
    </li>
  );
}
