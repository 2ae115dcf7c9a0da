import { useState } from 'react';
import { decisions, useApprovals, type Waiting } from '../../api/approvals.ts';
import { KeyHint } from '../../parts/keys.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { failed } from '../../parts/failed.ts';
import { toast } from '../../parts/toast.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { useRovingRows } from '../../parts/table/useRovingRows.ts';
import { Decided } from './Decided.tsx';
import { keyOf, WaitingRow } from './WaitingRow.tsx';

/** Everything that waits for one's decision, the longest first: approved from the list where nothing is unusual, else opened. */
export default function Approvals() {
  const { data, error, mutate } = useApprovals();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <div className="mx-auto w-full max-w-7xl pb-10">
      <WaitingList rows={data.waiting} reload={() => mutate()} />
      <Decided rows={data.decided} reload={() => mutate()} />
    </div>
  );
}

interface WaitingListProps {
  rows: readonly Waiting[];
  reload: () => Promise<unknown>;
}

function WaitingList({ rows, reload }: WaitingListProps) {
  const { list, current, setCurrent } = useRovingRows<HTMLUListElement>(rows.length);
  const { chosen, toggle, approve, busy } = useDecisions(rows, reload);
  const usual = rows.filter((r) => r.usual);
  const now = rows[current];
  useKeys({
    tick: () => now?.usual && toggle(now),
    approve: () => void approve(chosen.length > 0 ? chosen : now?.usual ? [now] : []),
  });
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">Waiting for your decision</h1>
        {usual.length > 0 && (
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={busy || chosen.length === 0}
            onClick={() => void approve(chosen)}
          >
            Approve {chosen.length > 1 ? `these ${chosen.length}` : 'the chosen'} <KeyHint of="approve" />
          </button>
        )}
        {usual.length > 1 && chosen.length < usual.length && (
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => usual.forEach((r) => !chosen.includes(r) && toggle(r))}
          >
            Choose all {usual.length} usual ones
          </button>
        )}
      </div>
      {rows.length === 0 ? (
        <Empty title="Nothing waits for you">
          Plans and claims that you have to decide about are listed here, and codes of yours that finance gave a claim.
        </Empty>
      ) : (
        <ul ref={list} className="rows border-y border-base-300 bg-base-100">
          {rows.map((row, index) => (
            <WaitingRow
              key={keyOf(row)}
              row={row}
              current={index === current}
              chosen={chosen.includes(row)}
              onFocus={() => setCurrent(index)}
              onChoose={() => toggle(row)}
            />
          ))}
        </ul>
      )}
    </>
  );
}

/** What is chosen in the list, and approving it: one after the other, what fails said by name, the rest taken back as one. */
function useDecisions(rows: readonly Waiting[], reload: () => Promise<unknown>) {
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  const chosen = rows.filter((r) => keys.has(keyOf(r)));
  const toggle = (row: Waiting) =>
    setKeys((all) => {
      const next = new Set(all);
      if (!next.delete(keyOf(row))) next.add(keyOf(row));
      return next;
    });
  const approve = async (those: readonly Waiting[]) => {
    if (those.length === 0 || busy) return;
    setBusy(true);
    const done: Waiting[] = [];
    for (const row of those) {
      const ok = await decisions.approve(row).then(
        () => true,
        (error: unknown) => void failed(error),
      );
      if (ok) done.push(row);
    }
    setKeys(new Set());
    await reload();
    setBusy(false);
    if (done.length > 0) sayDone(done, reload);
  };
  return { chosen, toggle, approve, busy };
}

function sayDone(done: readonly Waiting[], reload: () => Promise<unknown>): void {
  const text = done.length === 1 ? `${done[0]!.number} is approved` : `${done.length} are approved`;
  const undo = async () => {
    for (const { kind, number, revision } of done)
      await decisions.takeBack({ kind, number, revision: revision + 1 }).catch(failed);
    await reload();
  };
  toast({ text, act: { label: 'Undo', run: () => void undo() } });
}
