import { memo, type ComponentProps } from 'react';
import type { ClaimView } from '../../api/claims.ts';
import { History } from '../../parts/History.tsx';
import { BudgetsSide } from './BudgetsSide.tsx';
import { ChangesSide } from './ChangesSide.tsx';
import { ClaimRoute } from './Decisions.tsx';
import { Evidence } from './Evidence.tsx';
import { PersonSide } from './PersonSide.tsx';

const SIDES = ['evidence', 'changes', 'person', 'budgets', 'history', 'route'] as const;
export type Side = (typeof SIDES)[number];
const SIDE_NAMES: Record<Side, string> = {
  evidence: 'Evidence',
  changes: 'Changes',
  person: 'Person',
  budgets: 'Budgets',
  history: 'History',
  route: 'Who decides',
};

/** What can be looked up beside a claim: changes where there was a version before, budgets where one is charged. */
export const sidesOf = (view: ClaimView): Side[] =>
  SIDES.filter((side) => {
    if (side === 'changes') return view.claim.version > 1;
    return side !== 'budgets' || view.ties.some((t) => t.kind === 'budget' && t.state !== 'none');
  });

interface BesideProps extends ComponentProps<typeof Evidence> {
  side: Side;
  setSide: (side: Side) => void;
  /** The version this person looked at before. */
  before: number | null;
}

/** The right half of a Sheet: the evidence of the cell in focus, or something looked up beside it. */
export const Beside = memo(function Beside({ side, setSide, before, ...evidence }: BesideProps) {
  return (
    <aside
      id="evidence"
      tabIndex={-1}
      aria-label="Evidence"
      className="flex min-h-0 flex-col overflow-auto bg-base-100"
    >
      <SideChoice sides={sidesOf(evidence.view)} side={side} onChange={setSide} />
      <Content {...{ side, setSide, before }} {...evidence} />
    </aside>
  );
}, sameBeside);

/**
 * Every key in a bench makes the Sheet's state anew; what is done from here depends on the claim that is shown and on whether
 * an act is running.
 */
function sameBeside(a: BesideProps, b: BesideProps): boolean {
  const { sheet: before, ...rest } = a;
  const fields = Object.keys(rest) as (keyof typeof rest)[];
  return before.view === b.sheet.view && before.busy === b.sheet.busy && fields.every((field) => a[field] === b[field]);
}

function Content({ side, setSide, before, ...evidence }: BesideProps) {
  const { view, onCell } = evidence;
  const toLine = (line: string) => {
    onCell({ line, kind: 'receipt' });
    setSide('evidence');
  };
  switch (side) {
    case 'evidence':
      return <Evidence {...evidence} />;
    case 'changes':
      return <ChangesSide {...{ view, before }} onLine={toLine} />;
    case 'person':
      return <PersonSide number={view.claim.number} />;
    case 'budgets':
      return <BudgetsSide view={view} />;
    case 'history':
      return <History events={view.history} className="p-4 text-sm" />;
    case 'route':
      return <ClaimRoute view={view} />;
    default:
      return side satisfies never;
  }
}

interface SideChoiceProps {
  sides: readonly Side[];
  side: Side;
  onChange: (side: Side) => void;
}

function SideChoice({ sides, side, onChange }: SideChoiceProps) {
  return (
    <div role="group" aria-label="Side" className="flex shrink-0 gap-3 border-b border-base-300 px-4 py-1 text-sm">
      {sides.map((s) => (
        <button
          key={s}
          type="button"
          aria-pressed={side === s}
          className={side === s ? 'font-semibold underline underline-offset-4' : 'quiet'}
          onClick={() => onChange(s)}
        >
          {SIDE_NAMES[s]}
        </button>
      ))}
    </div>
  );
}
