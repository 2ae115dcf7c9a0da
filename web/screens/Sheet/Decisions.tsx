import { useState } from 'react';
import type { Line } from '../../../core/documents/case.schema.ts';
import { useRoute } from '../../api/approvals.ts';
import type { ClaimView, PlainAct, ReasonedAct } from '../../api/claims.ts';
import { KeyHint } from '../../parts/keys.tsx';
import { Loading } from '../../parts/Notices.tsx';
import { ReasonForm } from '../../parts/ReasonForm.tsx';
import { RouteSteps } from '../../parts/RouteSteps.tsx';
import { sayCuts } from '../../words/sayCut.ts';
import type { Undo } from './bench.ts';
import type { SheetState } from './useSheet.ts';

interface OfSheet {
  sheet: SheetState;
  view: ClaimView;
}

const PLAIN: readonly { act: PlainAct; label: string; done: string; undo?: PlainAct }[] = [
  { act: 'approve', label: 'Approve', done: 'is approved', undo: 'takeBack' },
  { act: 'agreeCode', label: 'Agree to the codes', done: 'has your yes' },
  { act: 'takeBack', label: 'Take back the approval', done: 'waits for you again' },
];
const REASONED: readonly { act: ReasonedAct; label: string; why: string; done: string }[] = [
  { act: 'refuseCode', label: 'Not these codes…', why: 'Why not these codes', done: 'does not have your yes' },
  { act: 'decline', label: 'Decline…', why: 'Why the claim is declined', done: 'is declined' },
];

/** How an approval is taken back. */
const undoneBy = (number: string, act: PlainAct): Undo => ({
  label: `approval of ${number}`,
  run: (acts, revision) => acts.plain(act, revision),
});

/** Approves as the key does; nothing where this person does not decide. */
export const approveOn = ({ sheet, view }: OfSheet): void => {
  if (!view.may.includes('approve')) return;
  const { number } = view.claim;
  void sheet.run(`${number} is approved`, (revision) => sheet.acts.plain('approve', revision), {
    whole: true,
    undo: undoneBy(number, 'takeBack'),
  });
};

/** What finance decides about a claim as an approver, or as the owner of a code; and declining it as a whole. */
export function Decisions({ sheet, view }: OfSheet) {
  const [asking, setAsking] = useState<ReasonedAct | null>(null);
  const { number } = view.claim;
  const asked = REASONED.find((r) => r.act === asking);
  const plain = ({ act, done, undo }: (typeof PLAIN)[number]) =>
    void sheet.run(`${number} ${done}`, (revision) => sheet.acts.plain(act, revision), {
      whole: true,
      ...(undo ? { undo: undoneBy(number, undo) } : {}),
    });
  return (
    <>
      {PLAIN.filter(({ act }) => view.may.includes(act)).map((one) => (
        <button
          key={one.act}
          type="button"
          className={`btn btn-sm ${one.act === 'takeBack' ? '' : 'btn-primary'}`}
          disabled={sheet.busy}
          onClick={() => plain(one)}
        >
          {one.label} {one.act === 'approve' && <KeyHint of="approve" />}
        </button>
      ))}
      {REASONED.filter(({ act }) => view.may.includes(act)).map(({ act, label }) => (
        <button key={act} type="button" className="btn btn-sm" onClick={() => setAsking(act)}>
          {label}
        </button>
      ))}
      {asked && (
        <div className="w-full">
          <ReasonForm
            label={asked.why}
            act={asked.label.replace('…', '')}
            onClose={() => setAsking(null)}
            onSubmit={(reason) =>
              sheet.run(`${number} ${asked.done}`, (revision) => sheet.acts.reasoned(asked.act, revision, reason), {
                whole: true,
                then: () => setAsking(null),
              })
            }
          />
        </div>
      )}
    </>
  );
}

/** Declining the line in focus, and taking it as it was again. */
export function LineDecision({ sheet, view, line }: OfSheet & { line: Line }) {
  const [asking, setAsking] = useState(false);
  const declined = view.declined.find((d) => d.line === line.id);
  const decline = (reason: string) => (revision: number) => sheet.acts.declineLine(line.id, revision, reason);
  const restore = (revision: number) => sheet.acts.restoreLine(line.id, revision);
  const undoBy = (run: (revision: number) => ReturnType<typeof restore>): Undo => ({
    label: `line ${line.id}`,
    run: (_acts, revision) => run(revision),
  });
  const may = view.may.includes('declineLine') && !line.personal && line.paidBy !== 'central';
  return (
    <>
      {declined && (
        <p className="mt-1 border-l-4 border-error pl-2 text-sm">
          <strong>Declined by {declined.by}:</strong> {declined.reason}
        </p>
      )}
      {(declined ? [] : sayCuts(line)).map(({ says, reason }) => (
        <p key={says} className="mt-1 border-l-4 border-error pl-2 text-sm">
          <strong>{says}:</strong> {reason}
        </p>
      ))}
      {may && declined && (
        <button
          type="button"
          className="btn btn-xs mt-2"
          onClick={() =>
            void sheet.run(`Line ${line.id} counts again`, restore, { undo: undoBy(decline(declined.reason)) })
          }
        >
          Count line {line.id} again
        </button>
      )}
      {may && !declined && (
        <button type="button" className="btn btn-xs mt-2" aria-expanded={asking} onClick={() => setAsking(!asking)}>
          Decline line {line.id}…
        </button>
      )}
      {asking && !declined && (
        <ReasonForm
          label={`Why line ${line.id} is declined`}
          act="Decline the line"
          onClose={() => setAsking(false)}
          onSubmit={(reason) =>
            sheet.run(`Line ${line.id} is declined`, decline(reason), {
              undo: undoBy(restore),
              then: () => setAsking(false),
            })
          }
        />
      )}
    </>
  );
}

/** Who decided about the claim, and who is asked about codes it was given since. */
export function ClaimRoute({ view: { claim } }: { view: ClaimView }) {
  const { data: route } = useRoute('claim', claim.number, claim.revision);
  return route ? (
    <div className="p-4">
      <RouteSteps route={route} />
    </div>
  ) : (
    <Loading shape="rows" />
  );
}
