import type { ReactNode } from 'react';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import type { DeskColumn } from '../../../contract/desk.ts';
import type { QueueRow } from '../../api/desk.ts';
import { Money } from '../../parts/Money.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { TieMark } from '../../parts/TieMark.tsx';
import type { Column } from '../../parts/table/columns.tsx';
import { inPixels } from '../../parts/table/rem.ts';
import { DeskClaim } from './DeskClaim.tsx';

type Id = DeskColumn['id'];
interface Shown {
  name: string;
  /** In rem, as long as nobody chose another. */
  width: number;
  right?: true;
  head?: ReactNode;
  cell: (row: QueueRow) => ReactNode;
}

const money = (amount: string | null, currency: string, strong = false) =>
  amount !== null && /[1-9]/.test(amount) ? (
    <Money amount={amount} currency={currency} strong={strong} />
  ) : (
    <span className="quiet">none</span>
  );

/** What the Desk can show of a claim besides whose it is and what for. */
export const COLUMNS: Record<Id, Shown> = {
  progress: { name: 'Progress and age', width: 9, cell: (row) => <TideBar pieces={row.tide} /> },
  ties: {
    name: 'Comparisons',
    width: 13,
    head: (
      <span className="grid grid-cols-9 items-end justify-items-center">
        {TIE_KINDS.map((kind) => (
          <span key={kind} className="rotate-180 text-[0.7rem] leading-none [writing-mode:vertical-rl]">
            {kind}
          </span>
        ))}
      </span>
    ),
    cell: (row) =>
      row.own ? (
        <span className="quiet text-sm">your own: somebody else decides</span>
      ) : (
        <span className="grid grid-cols-9 justify-items-center">
          {TIE_KINDS.map((kind) => (
            <TieMark key={kind} state={row.ties[kind] ?? 'none'} label={kind} />
          ))}
        </span>
      ),
  },
  risk: {
    name: 'At risk',
    width: 8.5,
    right: true,
    cell: (row) => (row.own ? null : money(row.atRisk, row.ledgerCurrency)),
  },
  pay: {
    name: 'To pay',
    width: 9,
    right: true,
    cell: (row) => <Money amount={row.toPay} currency={row.currency} strong />,
  },
  submitted: { name: 'Submitted', width: 6.5, cell: (row) => row.submittedOn },
  version: { name: 'Version', width: 4.5, right: true, cell: (row) => row.version },
  state: { name: 'State', width: 8, cell: (row) => row.state },
  asks: {
    name: 'Findings',
    width: 5,
    right: true,
    cell: (row) => (row.own ? null : row.stops + row.asks || <span className="quiet">none</span>),
  },
};

/** What is shown as long as nobody chose otherwise. */
export const USUAL: readonly DeskColumn[] = (['progress', 'ties', 'risk', 'pay'] as const).map((id) => ({
  id,
  width: COLUMNS[id].width,
}));

/** The columns of the queue as they are chosen, after the claim itself. */
export const deskColumns = (columns: readonly DeskColumn[], why: boolean): Column<QueueRow>[] => [
  {
    id: 'claim',
    header: 'Claim',
    cell: ({ row }) => <DeskClaim row={row.original} why={why} />,
    meta: { leads: true },
  },
  ...columns.map(({ id, width }): Column<QueueRow> => {
    const { name, head = name, cell, right } = COLUMNS[id];
    return {
      id,
      header: () => head,
      cell: ({ row }) => cell(row.original),
      size: inPixels(width),
      meta: { ...(right && { right }), narrow: id === 'pay' ? undefined : 'out' },
    };
  }),
];
