import type { Comparison, Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';

/** Both sides of each fact that a tie compares, and the difference. A rule is a sentence, with its figures below it. */
export function Comparisons({ comparisons }: { comparisons: Comparison[] }) {
  return (
    <table className="mt-2 w-full text-sm">
      <thead className="quiet text-left text-xs">
        <tr>
          {['Fact', 'Claimed', comparisons.some(isRule) ? 'Allowed' : 'Evidence', 'Difference'].map((h) => (
            <th key={h} className="pr-2 font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      {comparisons.map((c, i) => (
        <tbody key={i} className="border-t border-base-300 align-top">
          {isRule(c) && (
            <tr>
              <th scope="rowgroup" colSpan={4} className="pt-1 text-left font-medium">
                {c.fact}
              </th>
            </tr>
          )}
          <tr>
            <th scope="row" className="quiet py-1 pr-2 text-left font-normal">
              {isRule(c) ? '' : c.fact}
              {c.tolerance && <span className="block text-xs">tolerance {c.tolerance}</span>}
            </th>
            <td className="py-1 pr-2 break-words" colSpan={isRule(c) && c.evidence === null ? 2 : 1}>
              {figure(c.claimed)}
            </td>
            {(!isRule(c) || c.evidence !== null) && <td className="py-1 pr-2 break-words">{figure(c.evidence)}</td>}
            <td className={`py-1 whitespace-nowrap ${c.state === 'off' ? 'font-semibold text-error' : ''}`}>
              {c.difference ?? (c.state === 'open' ? 'nothing there' : '')}
            </td>
          </tr>
        </tbody>
      ))}
    </table>
  );
}

/** What a rule of the book wants is said in a sentence. */
const isRule = ({ fact }: Comparison): boolean => fact.endsWith('.');

const figure = (text: string | null): string =>
  text === null ? '–' : text.replace(/^-?\d+(\.\d+)?(?=$| [A-Z]{3}$)/, groupDigits);

const STEPS_HEAD: Partial<Record<Tie['kind'], string>> = { coding: 'Whom to ask', budget: 'Whom to ask' };

/** How a figure came about, step by step. */
export function Steps({ tie }: { tie: Tie }) {
  return (
    <details open className="mt-2 text-sm">
      <summary className="cursor-pointer">{STEPS_HEAD[tie.kind] ?? 'How the figure came about'}</summary>
      <ol className="mt-1">
        {tie.steps.map((step, i) => (
          <li key={i} className="flex justify-between gap-3 border-t border-base-300 py-0.5">
            <span>
              {step.label}
              {step.source && <span className="quiet block text-xs">{step.source}</span>}
            </span>
            <span className="money">{figure(step.value)}</span>
          </li>
        ))}
      </ol>
    </details>
  );
}
