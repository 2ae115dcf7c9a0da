import { useState } from 'react';
import { gather, type StatementsView } from '../../api/gather.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { failed } from '../../parts/failed.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { toast } from '../../parts/toast.tsx';
import { sayMoment } from '../../words/sayEvent.ts';

type Shown = StatementsView['statements'][number];
const HEADS = ['Came', 'Document', 'Card', 'Days', 'Entries', 'New', 'Closes with', 'Acts'];

/** Statements with what was taken of them; an import can be taken back while nothing of it is used. */
export function StatementTable({ rows, onChanged }: { rows: readonly Shown[]; onChanged: () => void }) {
  const [asked, setAsked] = useState<Shown | null>(null);
  return (
    <div className="mt-3 overflow-x-auto rounded-box border border-base-300 bg-base-100">
      <table className="w-full text-sm">
        <thead className="quiet text-left">
          <tr>
            {HEADS.map((h, i) => (
              <th key={h} className={`px-3 py-1 font-normal ${i > 3 ? 'text-right' : ''}`}>
                {h === 'Acts' ? <span className="sr-only">{h}</span> : h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((s) => (
            <StatementRow key={s.id} statement={s} onTakeBack={() => setAsked(s)} />
          ))}
        </tbody>
      </table>
      {asked && <TakeBack statement={asked} onChanged={onChanged} onClose={() => setAsked(null)} />}
    </div>
  );
}

function StatementRow({ statement: s, onTakeBack }: { statement: Shown; onTakeBack: () => void }) {
  const gone = s.state !== 'imported';
  return (
    <tr className="border-t border-base-300 align-top">
      <td className="px-3 py-1 whitespace-nowrap">{sayMoment(s.at)}</td>
      <td className="px-3 py-1">
        <bdi>{s.name}</bdi>{' '}
        <span className="quiet">
          {s.format}
          {s.by ? `, ${s.by}` : ', feed'}
        </span>
        {s.says && <span className="block max-w-xl text-error">{s.says}</span>}
      </td>
      <td className="px-3 py-1 font-mono">{s.card ?? '–'}</td>
      <td className="px-3 py-1 whitespace-nowrap">{s.from === s.to ? s.from : `${s.from} to ${s.to}`}</td>
      <td className="px-3 py-1 text-right">{s.entries}</td>
      <td className={`px-3 py-1 text-right ${s.state === 'refused' ? 'text-error' : ''}`}>
        {gone ? s.state : s.added}
      </td>
      <td className="money px-3 py-1">{s.closing === null ? '–' : `${groupDigits(s.closing)} ${s.currency}`}</td>
      <td className="px-3 py-1 text-right whitespace-nowrap">
        {s.may.includes('takeBack') && s.entries > 0 && (
          <button type="button" className="link quiet" aria-label={`Take back ${s.name}`} onClick={onTakeBack}>
            Take back…
          </button>
        )}
      </td>
    </tr>
  );
}

interface TakeBackProps {
  statement: Shown;
  onChanged: () => void;
  onClose: () => void;
}

function TakeBack({ statement: s, onChanged, onClose }: TakeBackProps) {
  const go = async () => {
    const answer = await gather.takeImportBack(s.id).catch(failed);
    onClose();
    if (!answer) return;
    onChanged();
    toast({ text: `${s.name} is taken back; ${sayCharges(answer.removed)} went with it` });
  };
  return (
    <Dialog title={`Take ${s.name} back?`} onClose={onClose}>
      <p>
        Charges that came by this import alone go; those that another statement tells of too stay. Nothing goes while a
        claim, a mark or a closed month uses one of them. The document stays in this list, and can be imported again.
      </p>
      <div className="mt-4 flex justify-end">
        <button type="button" className="btn btn-primary btn-sm" onClick={() => void go()}>
          Take it back
        </button>
      </div>
    </Dialog>
  );
}

const sayCharges = (count: number): string => (count === 1 ? '1 charge' : `${count} charges`);
