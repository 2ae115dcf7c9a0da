import { useState } from 'react';
import type { Line } from '../../../core/documents/case.schema.ts';
import type { MakerView } from '../../api/claims.ts';
import { TieMark } from '../../parts/TieMark.tsx';

/** For an approver: each comparison of a line with its evidence, and both sides of those that do not agree. */
export function LineTies({ view, line }: { view: MakerView; line: Line }) {
  const [open, setOpen] = useState(false);
  if (view.audience !== 'approver') return null;
  const ties = view.lineTies.filter((t) => t.line === line.id && t.state !== 'none');
  if (ties.length === 0) return null;
  return (
    <>
      <button
        type="button"
        className="flex items-center gap-1.5 py-1"
        aria-expanded={open}
        aria-label={`Comparisons of line ${line.id}`}
        onClick={() => setOpen(!open)}
      >
        {ties.map((tie) => (
          <TieMark key={tie.kind} state={tie.state} label={tie.kind} />
        ))}
      </button>
      {open && (
        <table className="order-last w-full text-left text-sm">
          <thead className="quiet">
            <tr>
              <th className="font-normal">Compared</th>
              <th className="w-1/5 font-normal">Claimed</th>
              <th className="w-1/5 font-normal">Evidence or rule</th>
              <th className="text-right font-normal">Difference</th>
            </tr>
          </thead>
          <tbody>
            {ties.flatMap((tie) =>
              tie.comparisons.map((c, i) => (
                <tr key={`${tie.kind} ${i}`} className="border-t border-base-300 align-top">
                  <td className="py-0.5">
                    <span className="inline-flex items-center gap-1.5">
                      <TieMark state={c.state} /> {tie.kind}: {c.fact}
                    </span>
                  </td>
                  <td>{c.claimed ?? '–'}</td>
                  <td>{c.evidence ?? '–'}</td>
                  <td className="text-right">{c.difference ?? ''}</td>
                </tr>
              )),
            )}
          </tbody>
        </table>
      )}
    </>
  );
}
