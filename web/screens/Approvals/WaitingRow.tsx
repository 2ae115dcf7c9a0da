import { Link } from 'react-router';
import type { ShownTie } from '../../../core/evidence/comparisons/stateWithMark.ts';
import { TIE_KINDS } from '../../../core/evidence/comparisons/tie.types.ts';
import type { Waiting } from '../../api/approvals.ts';
import { Money } from '../../parts/Money.tsx';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { TieMark } from '../../parts/TieMark.tsx';
import { sayAbout } from '../../words/sayRoute.ts';
import { sayWait } from '../../words/sayWait.ts';

export const keyOf = ({ kind, asks, number }: Waiting): string => `${kind} ${asks} ${number}`;
export const pathOf = ({ kind, number }: Pick<Waiting, 'kind' | 'number'>): string => `/${kind}s/${number}`;

interface WaitingRowProps {
  row: Waiting;
  current: boolean;
  chosen: boolean;
  onFocus: () => void;
  onChoose: () => void;
}

/** One record that waits: who, what for, how much, since when, against which plan, on whose budget, what is unusual. */
export function WaitingRow({ row, current, chosen, onFocus, onChoose }: WaitingRowProps) {
  return (
    <li
      className={`grid grid-cols-[2.5rem_minmax(0,1fr)] border-b border-base-300 last:border-b-0 ${chosen ? 'bg-base-200' : ''}`}
    >
      <span className="flex justify-center pt-3">
        {row.usual && (
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            aria-label={`Choose ${row.number}`}
            tabIndex={-1}
            checked={chosen}
            onChange={onChoose}
          />
        )}
      </span>
      <Link
        data-row
        to={pathOf(row)}
        tabIndex={current ? 0 : -1}
        onFocus={onFocus}
        className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 gap-y-1 py-2 pr-4 hover:bg-base-200 md:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)_10rem]"
      >
        <What row={row} />
        <span className="order-last col-span-2 text-sm md:order-none md:col-span-1">
          <Unusual row={row} />
          <Budgets row={row} />
        </span>
        <span className="text-right">
          <Money amount={row.amount} currency={row.currency} strong />
          {row.toPay !== null && row.toPay !== row.amount && (
            <span className="quiet block text-sm">to pay {groupDigits(row.toPay)}</span>
          )}
          <span className="quiet block text-sm">{sayWait(row.since)}</span>
        </span>
      </Link>
    </li>
  );
}

function What({ row }: { row: Waiting }) {
  const about = sayAbout(row.about, row.ledgerCurrency);
  return (
    <span className="min-w-0">
      <span className="flex flex-wrap items-baseline gap-x-2">
        <span className="font-mono text-sm">{row.number}</span>
        <span className="truncate font-semibold">{row.who}</span>
        <span className="quiet text-sm">
          {row.asks === 'code' ? 'a code of yours' : row.kind}
          {row.insteadOf.length > 0 && `, for ${row.insteadOf.join(' and ')}`}
        </span>
      </span>
      <span className="block truncate">{row.purpose}</span>
      <span className="quiet block text-sm">
        {[sayDates(row), row.plan && `plan ${row.plan}`, about && `about ${about}`].filter(Boolean).join(' · ')}
      </span>
    </span>
  );
}

const sayDates = ({ from, to }: Waiting): string => (from ? (to && to !== from ? `${from} to ${to}` : from) : '');

/** The comparisons at their worst, findings, and what the claimant says to them. */
function Unusual({ row }: { row: Waiting }) {
  const said = [
    row.stops > 0 && `${row.stops} ${row.stops === 1 ? 'stop' : 'stops'}`,
    row.asksOpen > 0 && `${row.asksOpen} to ask about`,
  ].filter((words) => words !== false);
  return (
    <>
      <span className="flex flex-wrap items-center gap-1.5">
        {TIE_KINDS.filter((kind) => (row.ties[kind] ?? 'none') !== 'none').map((kind) => (
          <TieMark key={kind} state={row.ties[kind] as ShownTie} label={kind} />
        ))}
        {row.usual ? <span className="quiet">nothing unusual</span> : <span>{said.join(', ')}</span>}
      </span>
      {row.words.slice(0, 2).map((word, i) => (
        <span key={i} className="quiet block truncate" title={word.text}>
          {row.kind === 'advance' && `${word.says} `}
          {word.text && `“${word.text}”`}
        </span>
      ))}
    </>
  );
}

const Budgets = ({ row }: { row: Waiting }) => (
  <>
    {row.budgets.map(({ dimension, code, left, mine }) => (
      <span key={`${dimension} ${code}`} className="block">
        {mine ? 'Your budget' : 'Budget'} {dimension} {code}:{' '}
        {left === null ? 'not known' : `${groupDigits(left)} ${row.ledgerCurrency} left`}
      </span>
    ))}
  </>
);
