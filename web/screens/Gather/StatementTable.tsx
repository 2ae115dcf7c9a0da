import { useState } from 'react';
import { gather, type StatementsView } from '../../api/gather.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { failed } from '../../parts/failed.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { toast } from '../../parts/toast.tsx';
import type { Column } from '../../parts/table/columns.tsx';
import { Table } from '../../parts/table/Table.tsx';
import { sayMoment } from '../../words/sayEvent.ts';

type Shown = StatementsView['statements'][number];

/** Statements with what was taken of them; an import can be taken back while nothing of it is used. */
export function StatementTable({ rows, onChanged }: { rows: readonly Shown[]; onChanged: () => void }) {
  const [asked, setAsked] = useState<Shown | null>(null);
  return (
    <div className="mt-3 overflow-x-auto rounded-box border border-base-300 bg-base-100">
      <Table
        label="Statements"
        rows={rows}
        columns={[...COLUMNS, takeBack(setAsked)]}
        keyOf={(s) => String(s.id)}
        className="text-sm"
      />
      {asked && <TakeBack statement={asked} onChanged={onChanged} onClose={() => setAsked(null)} />}
    </div>
  );
}

const ONE_LINE = { className: 'whitespace-nowrap' } as const;

const COLUMNS: readonly Column<Shown>[] = [
  { id: 'at', header: 'Came', accessorFn: (s) => s.at, cell: ({ row }) => sayMoment(row.original.at), meta: ONE_LINE },
  {
    id: 'name',
    header: 'Document',
    accessorFn: (s) => s.name,
    cell: ({ row }) => <Document statement={row.original} />,
  },
  {
    id: 'card',
    header: 'Card',
    accessorFn: (s) => s.card ?? '',
    cell: ({ row }) => <span className="font-mono">{row.original.card ?? '–'}</span>,
    meta: { narrow: 'below' },
  },
  {
    id: 'days',
    header: 'Days',
    accessorFn: (s) => s.from ?? '',
    cell: ({ row: { original: s } }) => (s.from === s.to ? s.from : `${s.from} to ${s.to}`),
    meta: { ...ONE_LINE, narrow: 'below' },
  },
  { id: 'entries', header: 'Entries', accessorFn: (s) => s.entries, meta: { right: true, narrow: 'out' } },
  {
    id: 'new',
    header: 'New',
    accessorFn: (s) => s.added,
    cell: ({ row: { original: s } }) => (
      <span className={s.state === 'refused' ? 'text-error' : ''}>{s.state === 'imported' ? s.added : s.state}</span>
    ),
    meta: { right: true },
  },
  {
    id: 'closing',
    header: 'Closes with',
    cell: ({ row: { original: s } }) => (s.closing === null ? '–' : `${groupDigits(s.closing)} ${s.currency}`),
    meta: { right: true, narrow: 'below' },
  },
];

const takeBack = (onAsk: (statement: Shown) => void): Column<Shown> => ({
  id: 'acts',
  header: 'Acts',
  meta: { unseen: true, right: true },
  cell: ({ row: { original: s } }) =>
    s.may.includes('takeBack')
    && s.entries > 0 && (
      <button type="button" className="link quiet" aria-label={`Take back ${s.name}`} onClick={() => onAsk(s)}>
        Take back…
      </button>
    ),
});

const Document = ({ statement: s }: { statement: Shown }) => (
  <>
    <bdi>{s.name}</bdi>{' '}
    <span className="quiet">
      {s.format}
      {s.by ? `, ${s.by}` : ', feed'}
    </span>
    {s.says && <span className="block max-w-xl text-error">{s.says}</span>}
  </>
);

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
