import { claimAnswer, type ClaimAnswer } from '../../../../contract/claims.ts';
import type { Line } from '../../../../core/documents/case.schema.ts';
import { canonical } from '../../../../core/numbers/canonical.ts';
import type { MakerView } from '../../../api/claims.ts';
import { send } from '../../../api/client.ts';
import type { Explain } from '../../../../contract/drafts.ts';
import { drafts, type HeaderSet, type LineSet, type LinesEdit, type NewLine } from '../../../api/drafts.ts';
import { failed } from '../../../parts/failed.ts';
import type { Edit, SaverState } from '../../../parts/saver.ts';
import { useSaver } from '../../../parts/useSaver.ts';

type Done = (error: Error | null) => void;

/** What is done with a claim in preparation: every change is queued, sent in turn, and shown as the server answers. */
export interface Draft {
  state: SaverState;
  editLine(line: string, set: LineSet, done?: Done): void;
  /** Changes several lines alike; whatever somebody else changed on them meanwhile otherwise stays. */
  editSeveral(change: LinesEdit, done?: Done): void;
  editHeader(set: HeaderSet, done?: Done): void;
  write(lines: NewLine[], done?: Done): void;
  remove(line: string, done?: Done): void;
  order(order: string[]): void;
  /** Answers a query that came back with the claim. */
  answer(query: string, text: string, done?: Done): void;
  /** Does what is neither an edit of a field nor typed: sent in its turn, and once. */
  run(says: string, send: (revision: number) => Promise<ClaimAnswer>, done?: Done): void;
  /** Says why to a finding. */
  explain(said: Explain, done?: Done): void;
}

export function useDraft(view: MakerView, show: (next: ClaimAnswer) => void): Draft {
  const { number } = view.claim;
  const {
    state,
    add: queue,
    seen,
  } = useSaver({
    view,
    show,
    revisionOf: (v) => v.claim.revision,
    load: () => send('GET', `/claims/${encodeURIComponent(number)}`, claimAnswer),
  });
  const add = (edit: Omit<Edit<ClaimAnswer>, 'done'>, done: Done = (error) => error && failed(error)) =>
    queue({ ...edit, done });
  return {
    state,
    editLine: (line, set, done) => add(lineEdit(number, seen(), line, set), done),
    editSeveral: (change, done) =>
      add(
        {
          says: `${change.ids.length} lines`,
          send: (r) => drafts.editSeveral(number, r, change),
          stands: (v) => change.ids.every((id) => hasLine(id)(v)),
        },
        done,
      ),
    editHeader: (set, done) => add(headerEdit(number, seen(), set), done),
    write: (lines, done) =>
      add({ says: 'the lines', send: (r) => drafts.write(number, r, lines), stands: () => true }, done),
    remove: (line, done) =>
      add({ says: `line ${line}`, send: (r) => drafts.remove(number, r, line), stands: hasLine(line) }, done),
    run: (says, send, done) => add({ says, send, stands: () => true }, done),
    answer: (query, text, done) =>
      add({ says: 'an answer', send: (r) => drafts.answer(number, r, query, text), stands: () => true }, done),
    explain: (said, done) =>
      add({ says: 'a word to a finding', send: (r) => drafts.explain(number, r, said), stands: () => true }, done),
    order: (order) =>
      add({ says: 'the order', send: (r) => drafts.order(number, r, order), stands: sameOrder(seen()) }),
  };
}

const linesOf = (view: ClaimAnswer): readonly Line[] =>
  'lines' in view.document ? view.document.lines : view.document.claim.lines;
const hasLine = (id: string) => (view: ClaimAnswer) => linesOf(view).some((l) => l.id === id);
const idsOf = (view: ClaimAnswer): string =>
  linesOf(view)
    .map((l) => l.id)
    .sort()
    .join(' ');
const sameOrder = (before: ClaimAnswer) => (view: ClaimAnswer) => idsOf(view) === idsOf(before);

function lineEdit(number: string, before: MakerView, id: string, set: LineSet): Omit<Edit<ClaimAnswer>, 'done'> {
  const fields = Object.keys(set) as (keyof LineSet)[];
  const valuesIn = (view: ClaimAnswer) => {
    const line = linesOf(view).find((l) => l.id === id);
    return line
      ? canonical(fields.map((f) => (f === 'amount' ? [line.amount, line.currency] : (line[f] ?? null))))
      : null;
  };
  const typedOver = valuesIn(before);
  return {
    says: `line ${id}`,
    send: (revision) => drafts.edit(number, revision, id, set),
    stands: (view) => valuesIn(view) === typedOver,
  };
}

function headerEdit(number: string, before: MakerView, set: HeaderSet): Omit<Edit<ClaimAnswer>, 'done'> {
  const valuesIn = (view: ClaimAnswer) => {
    const coding = 'lines' in view.document ? view.document.coding : view.document.claim.coding;
    const all: Record<string, unknown> = { ...view.claim, coding };
    return canonical(Object.keys(set).map((field) => all[field] ?? null));
  };
  const typedOver = valuesIn(before);
  return {
    says: 'the header',
    send: (revision) => drafts.header(number, revision, set),
    stands: (view) => valuesIn(view) === typedOver,
  };
}
