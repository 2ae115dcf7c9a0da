import { useState } from 'react';
import type { Explanation } from '../../../core/explain/explain.types.ts';
import type { Case } from '../../../core/documents/case.schema.ts';
import { ExplainedSteps } from '../../parts/ExplainedSteps.tsx';

/** How every figure of a line came about; loaded and worked out when somebody opens it, and not before. */
export function Explained({ document, line }: { document: Case; line: string }) {
  const [steps, setSteps] = useState<Explanation[] | null>(null);
  const open = async (isOpen: boolean) => {
    if (!isOpen || steps) return;
    const { explainLine } = await import('../../../core/explain/explainLine.ts');
    setSteps(explainLine(document, line) ?? []);
  };
  return (
    <details className="mt-2 text-sm" onToggle={(e) => void open(e.currentTarget.open)}>
      <summary className="cursor-pointer">Every figure of line {line}</summary>
      <ExplainedSteps steps={steps ?? []} />
    </details>
  );
}
