import { claimAnswer, type ClaimAnswer } from '../../../../contract/claims.ts';
import type { Line } from '../../../../core/documents/case.schema.ts';
import type { MakerView } from '../../../api/claims.ts';
import { send } from '../../../api/client.ts';
import type { Explain } from '../../../../contract/drafts.ts';
import { drafts, type HeaderSet, type LineSet, type LinesEdit, type NewLine } from '../../../api/drafts.ts';
import { newLineOf } from '../../../../contract/newLineOf.ts';
import { failed } from '../../../parts/failed.ts';
import type { Edit, SaverState } from '../../../parts/saver.ts';
import { sayTyped, valuesIn } from '../../../parts/edits.ts';
import { useSaver } from '../../../parts/useSaver.ts';

type Done = (error: Error | null) => void;
const tell: Done = (error) => error && failed(error);

/** What is done with a claim in preparation: every change is queued, sent in turn, and shown as the server answers. */
export interface Draft {
  state: SaverState;
  /** Runs an act on the claim as a whole, after everything that was typed before. */
  act(send: (revision: number) => Promise<ClaimAnswer>): Promise<ClaimAnswer>;
  /** `over` is the line as it was shown when the set was typed, where that may be a while ago. */
  editLine(line: string, set: LineSet, done?: Done, over?: Line): void;
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
    act,
    seen,
  } = useSaver({
    name: `Claim ${number}`,
    view,
    show,
    revisionOf: (v) => v.claim.revision,
    load: () => send('GET', `/claims/${encodeURIComponent(number)}`, claimAnswer),
    again: (what) => editOf(number, what as KeptEdit, write),
  });
  const add = (edit: Omit<Edit<ClaimAnswer>, 'done'>, done: Done = tell) => queue({ ...edit, done });
  const write = (lines: NewLine[], done?: Done): void => add(editOf(number, { is: 'lines', lines }, write), done);
  return {
    state,
    act,
    editLine: (id, set, done = tell, over) => {
      const before = over ?? lineIn(seen(), id) ?? null;
      const edit = editOf(number, { is: 'line', id, set, before }, write);
      queue({ ...edit, over: valuesOf(before, set), done, inPlace: done !== tell });
    },
    editSeveral: (change, done) =>
      add(
        {
          says: `${change.ids.length} lines`,
          send: (r) => drafts.editSeveral(number, r, change),
          of: (v) => String(change.ids.every((id) => hasLine(id)(v))),
        },
        done,
      ),
    editHeader: (set, done = tell) =>
      queue({ ...editOf(number, { is: 'header', set }, write), done, inPlace: done !== tell }),
    write,
    remove: (line, done) =>
      add(
        { says: `line ${line}`, send: (r) => drafts.remove(number, r, line), of: (v) => String(hasLine(line)(v)) },
        done,
      ),
    run: (says, send, done) => add({ says, send }, done),
    answer: (query, text, done) => add({ says: 'an answer', send: (r) => drafts.answer(number, r, query, text) }, done),
    explain: (said, done) => add({ says: 'a word to a finding', send: (r) => drafts.explain(number, r, said) }, done),
    order: (order) => add({ says: 'the order', send: (r) => drafts.order(number, r, order), of: idsOf }),
  };
}

const linesOf = (view: ClaimAnswer): readonly Line[] =>
  'lines' in view.document ? view.document.lines : view.document.claim.lines;
const lineIn = (view: ClaimAnswer, id: string): Line | undefined => linesOf(view).find((l) => l.id === id);
const hasLine = (id: string) => (view: ClaimAnswer) => linesOf(view).some((l) => l.id === id);
const idsOf = (view: ClaimAnswer): string =>
  linesOf(view)
    .map((l) => l.id)
    .sort()
    .join(' ');

/** An edit as it can be kept: what is set, and what it was typed over. */
type KeptEdit =
  | { is: 'line'; id: string; set: LineSet; before: Line | null }
  | { is: 'header'; set: HeaderSet }
  | { is: 'lines'; lines: NewLine[] };

function editOf(number: string, kept: KeptEdit, write: (lines: NewLine[]) => void): Omit<Edit<ClaimAnswer>, 'done'> {
  switch (kept.is) {
    case 'line':
      return { kept, ...lineEdit(number, kept, write) };
    case 'header':
      return {
        kept,
        says: 'the header',
        send: (revision) => drafts.header(number, revision, kept.set),
        of: (view) => headerIn(view, kept.set),
        to: valuesIn(kept.set, kept.set),
      };
    case 'lines':
      return {
        kept,
        says: sayLines(kept.lines),
        send: (r) => drafts.write(number, r, kept.lines),
      };
  }
}

function lineEdit(
  number: string,
  { id, set, before }: Extract<KeptEdit, { is: 'line' }>,
  write: (lines: NewLine[]) => void,
): Omit<Edit<ClaimAnswer>, 'done'> {
  return {
    says: `line ${id}${sayTyped(set)}`,
    send: (revision) => drafts.edit(number, revision, id, set),
    of: (view) => valuesOf(lineIn(view, id) ?? null, set),
    to: valuesOf({ ...set, ...set.amount, id } as Line, set),
    anew: (view) =>
      before && !hasLine(id)(view)
        ? { label: 'Add it as a new line', run: () => write([{ ...newLineOf(before), ...set }]) }
        : null,
  };
}

/** What a line says of the fields that are set, as it can be compared; null of no line. */
function valuesOf(line: Line | null, set: LineSet): string | null {
  const said = line && { ...line, amount: [line.amount, line.currency] };
  return valuesIn(said ?? undefined, set, line?.id);
}

const sayLines = ([first, ...others]: readonly NewLine[]): string =>
  others.length > 0
    ? `${others.length + 1} new lines`
    : `a new line (${[first?.merchant, first?.amount.amount].filter(Boolean).join(', ')})`;

/** What the header says of the fields that are set, as it can be compared. */
function headerIn(view: ClaimAnswer, set: HeaderSet): string | null {
  const coding = 'lines' in view.document ? view.document.coding : view.document.claim.coding;
  return valuesIn({ ...view.claim, coding }, set);
}
