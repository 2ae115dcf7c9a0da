import { useState, type FormEvent } from 'react';
import type { ClaimAnswer, MakerView, ShownQuery } from '../../api/claims.ts';
import { claimActs } from '../../api/claims.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { useKept } from '../../parts/kept.ts';
import { Cell } from '../../parts/Cell.tsx';
import { longerThan } from '../../parts/cellProblems.ts';
import { toast } from '../../parts/toast.tsx';
import type { Draft } from './prepare/useDraft.ts';

interface QuestionsProps {
  view: MakerView;
  draft: Draft;
  show: (next: ClaimAnswer) => void;
  reload: () => void;
}

/**
 * What was asked of the claim's last version with questions, each with its answer. One that came back with a returned claim is
 * answered as the claim is written, until that goes out again; one that was asked in review is answered once, and the claim stays where it is.
 */
export function Questions({ view, draft, show, reload }: QuestionsProps) {
  const last = Math.max(...view.queries.map((q) => q.version));
  const asked = view.queries.filter((q) => q.version === last);
  if (asked.length === 0) return null;
  const written = view.may.includes('edit');
  const mine = (query: ShownQuery) =>
    view.may.includes('answer')
    && query.answer === null
    && (query.asks === 'claimant') === (view.audience === 'claimant');
  return (
    <section aria-label="Questions" className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-2">
      <h2 className="font-semibold">Questions</h2>
      {asked.some(mine) && (
        <p className="quiet text-sm">
          The claim stays in review; it waits for your {asked.length === 1 ? 'answer' : 'answers'}.
        </p>
      )}
      <ul className="cells-open">
        {asked.map((query, row) => (
          <li key={query.id} className="border-t border-base-300 py-1.5 first:border-t-0">
            Line {query.line}: {query.text} <span className="quiet">({query.by})</span>
            {written && query.version === view.claim.version - 1 ? (
              <Written {...{ query, row, draft }} />
            ) : mine(query) ? (
              <AnswerForm key={query.id} {...{ view, query, show, reload }} />
            ) : (
              <Answered query={query} />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Written({ query, row, draft }: { query: ShownQuery; row: number; draft: Draft }) {
  return (
    <Cell
      label={`Answer to: line ${query.line}, ${query.text}`}
      row={row}
      column="answer"
      value={query.answer?.text ?? ''}
      placeholder="Your answer"
      problemOf={(typed) => (typed.trim() ? longerThan(2000)(typed) : 'Write an answer.')}
      onSave={(typed, done) => draft.answer(query.id, typed.trim(), done)}
    />
  );
}

function Answered({ query }: { query: ShownQuery }) {
  return (
    <>
      {query.answer ? (
        <span className="block">
          “{query.answer.text}” <span className="quiet">({query.answer.by})</span>
        </span>
      ) : (
        <span className="quiet block text-sm">not answered yet</span>
      )}
      {query.files.length > 0 && <Attachments of="the answer" attachments={query.files} />}
    </>
  );
}

type AnswerFormProps = Omit<QuestionsProps, 'draft'> & { query: ShownQuery };

/** An answer in words, with files that are added before it is sent. What was typed stays when the server says no. */
function AnswerForm({ view, query, show, reload }: AnswerFormProps) {
  const [text, setText, dropText] = useKept(`answer ${query.id}`, '');
  const [busy, setBusy] = useState(false);
  const acts = claimActs(view.claim.number);
  const run = async (act: () => Promise<ClaimAnswer>) => {
    setBusy(true);
    try {
      const next = await act();
      if (next.queries.find((q) => q.id === query.id)?.answer) dropText();
      show(next);
    } catch (failure) {
      toast({ text: (failure as Error).message, tone: 'bad' });
      reload();
    }
    setBusy(false);
  };
  const { revision } = view.claim;
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) void run(() => acts.answer(query.id, revision, text.trim()));
  };
  return (
    <form onSubmit={send} className="mt-1 grid gap-1">
      <textarea
        className="textarea textarea-sm w-full"
        aria-label={`Answer to: line ${query.line}, ${query.text}`}
        placeholder="Your answer"
        rows={2}
        maxLength={2000}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <span className="flex flex-wrap items-center gap-3">
        <button className="btn btn-primary btn-sm" disabled={busy || !text.trim()}>
          Answer
        </button>
        <Attachments
          of="the answer"
          attachments={query.files}
          onAdd={(file) => void run(() => acts.attachAnswer(query.id, revision, file))}
        />
      </span>
    </form>
  );
}
