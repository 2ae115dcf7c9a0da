import type { Explanation } from '../../core/explain/explain.types.ts';
import { groupDigits } from '../../core/numbers/groupDigits.ts';

const FIGURES: Record<string, string> = {
  claimAmount: 'amount in claim currency',
  ledgerAmount: 'amount in ledger currency',
};

/** How figures came about, one after the other. */
export const ExplainedSteps = ({ steps }: { steps: readonly Explanation[] }) => (
  <ol className="mt-1">
    {steps.map((step, i) => (
      <Step key={i} step={step} />
    ))}
  </ol>
);

/** One figure: its formula with the numbers put in, the rates, the exact value before rounding. */
function Step({ step }: { step: Explanation }) {
  return (
    <li className="border-t border-base-300 py-1">
      <span className="flex justify-between gap-3">
        <span className="font-medium">
          {FIGURES[step.figure] ?? step.figure}
          {step.item && ` of item ${step.item}`}
          {step.share !== null && ` of share ${step.share + 1}`}
        </span>
        <span className="money font-medium">
          {step.result === null ? '–' : `${groupDigits(step.result)} ${step.currency}`}
        </span>
      </span>
      <span className="quiet block">
        {step.formula};{' '}
        {Object.entries(step.inputs)
          .map(([name, value]) => `${name} ${value}`)
          .join(', ')}
      </span>
      {step.rates.map((r) => (
        <span key={`${r.from}${r.to}`} className="quiet block">
          1 {r.from} = {r.reciprocal ? `1 ÷ ${r.quoted}` : r.quoted} {r.to}, {r.date}
          {r.source && `, ${r.source}`}
        </span>
      ))}
      {step.exact !== null && <span className="quiet block">exactly {step.exact}</span>}
    </li>
  );
}
