import type { ReactNode } from 'react';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import type { DeskColumn } from '../../../contract/desk.ts';
import type { QueueRow } from '../../api/desk.ts';
import { Money } from '../../parts/Money.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { TieMark } from '../../parts/TieMark.tsx';

type Id = DeskColumn['id'];
/** In rem. */
export const [NARROWEST, WIDEST] = [4, 24];

interface Column {
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
export const COLUMNS: Record<Id, Column> = {
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

/** The grid of the rows: the box to choose it, the claim, then the columns. */
export const gridOf = (columns: readonly DeskColumn[]): string =>
  `1rem minmax(14rem, 1fr) ${columns.map((c) => `${c.width}rem`).join(' ')}`;

/** The columns with one shown or hidden, moved, or made wider. */
export const toggled = (columns: readonly DeskColumn[], id: Id): DeskColumn[] =>
  columns.some((c) => c.id === id)
    ? columns.filter((c) => c.id !== id)
    : [...columns, { id, width: COLUMNS[id].width }];
export function moved(columns: readonly DeskColumn[], id: Id, step: -1 | 1): DeskColumn[] {
  const at = columns.findIndex((c) => c.id === id);
  const to = at + step;
  if (at < 0 || to < 0 || to >= columns.length) return [...columns];
  return columns.with(at, columns[to]!).with(to, columns[at]!);
}
export const sized = (columns: readonly DeskColumn[], id: Id, width: number): DeskColumn[] =>
  columns.map((c) => (c.id === id ? { ...c, width: Math.max(NARROWEST, Math.min(WIDEST, width)) } : c));
