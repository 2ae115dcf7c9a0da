import { Link } from 'react-router';
import type { BudgetsAnswer } from '../../../contract/beside.ts';
import { useBudgets } from '../../api/beside.ts';
import { useChart } from '../../api/chart.ts';
import type { ClaimView } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { Rows } from './PersonSide.tsx';

type Budget = BudgetsAnswer['budgets'][number];

/** The budgets this claim charges: what others used, what it takes itself, what is left then, and who used it. */
export function BudgetsSide({ view: { claim } }: { view: ClaimView }) {
  const { data, error, mutate } = useBudgets(claim.number, claim.revision);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  if (data.budgets.length === 0) return <p className="quiet p-4">This claim charges no budget.</p>;
  return (
    <div className="grid gap-6 p-4 text-sm">
      {data.budgets.map((b) => (
        <OneBudget key={`${b.dimension} ${b.code} ${b.category ?? ''}`} budget={b} />
      ))}
    </div>
  );
}

function OneBudget({ budget }: { budget: Budget }) {
  const { data: chart } = useChart();
  const dimension = chart?.dimensions.find((d) => d.id === budget.dimension)?.name ?? budget.dimension;
  const name = chart?.values.find((v) => v.dimension === budget.dimension && v.code === budget.code)?.name ?? '';
  const category = chart?.categories.find((c) => c.id === budget.category)?.name ?? budget.category;
  const sum: [string, string][] = [
    ['posted', budget.posted],
    ['cleared', budget.cleared],
    ['reserved by plans', budget.reserved],
    ['this claim', budget.thisClaim],
  ];
  const over = budget.left.startsWith('-');
  return (
    <section aria-label={`Budget of ${budget.code}`}>
      <h3 className="font-semibold">
        {dimension} {budget.code} <span className="font-normal">{name}</span>
        {category && <span className="quiet font-normal"> for {category}</span>}
      </h3>
      <table className="my-1 w-full">
        <tbody>
          <SumRow words={`budget, in ${budget.currency}`} amount={budget.amount} />
          {sum.map(([words, amount]) => (
            <SumRow key={words} words={`− ${words}`} amount={amount} />
          ))}
          <SumRow
            words={over ? '= above the budget by' : '= left then'}
            amount={over ? budget.left.slice(1) : budget.left}
            tone={over ? 'font-semibold text-error' : 'font-semibold'}
          />
        </tbody>
      </table>
      <Rows title="Used by" none="Nobody else.">
        {budget.uses.map((use) => (
          <tr key={`${use.kind} ${use.id} ${use.stage}`} className="border-t border-base-300">
            <td className="py-0.5">
              {use.kind === 'claim' ? (
                <Link className="link font-mono" to={`/desk/${use.id}`}>
                  {use.id}
                </Link>
              ) : (
                <span className="font-mono">{use.id}</span>
              )}{' '}
              {use.who}
            </td>
            <td className="quiet px-2">{use.stage}</td>
            <td className="text-right">
              <Money amount={use.amount} />
            </td>
          </tr>
        ))}
      </Rows>
    </section>
  );
}

interface SumRowProps {
  words: string;
  amount: string;
  tone?: string;
}
const SumRow = ({ words, amount, tone = '' }: SumRowProps) => (
  <tr className={tone}>
    <td>{words}</td>
    <td className="text-right">
      <Money amount={amount} />
    </td>
  </tr>
);
