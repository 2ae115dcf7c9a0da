import { useState } from 'react';
import { RECURRENCES, type Recurrence } from '../../../../contract/drafts.ts';
import { drafts, useRecurring } from '../../../api/drafts.ts';
import { failed } from '../../../parts/failed.ts';
import { toast } from '../../../parts/toast.tsx';
import type { LineRowProps } from './lineRow.types.ts';
import { DayField } from '../../../parts/days/DayField.tsx';

type RepeatFormProps = Pick<LineRowProps, 'view' | 'line' | 'draft'> & { onClose: () => void };

/** Has a line proposed again on later claims, so often, until a day or for good. */
export function RepeatForm({ view, line, draft, onClose }: RepeatFormProps) {
  const [every, setEvery] = useState<Recurrence>('month');
  const [until, setUntil] = useState('');
  const { mutate } = useRecurring(view.claim.number);
  const save = () =>
    draft.run(
      `line ${line.id}`,
      (revision) => drafts.repeat(view.claim.number, revision, line.id, { every, until: until || null }),
      (error) => {
        if (error) return failed(error);
        toast({ text: `Line ${line.id} comes again every ${every}; it is proposed when it is due.` });
        void mutate();
        onClose();
      },
    );
  return (
    <section
      aria-label={`Repetition of line ${line.id}`}
      className="mt-3 flex flex-wrap items-center gap-2 border-l-4 border-primary bg-base-100 px-4 py-3 text-sm"
    >
      <label className="flex items-center gap-2">
        Every
        <select
          className="select select-sm w-32"
          aria-label="How often"
          value={every}
          onChange={(e) => setEvery(e.target.value as Recurrence)}
        >
          {RECURRENCES.map((r) => (
            <option key={r}>{r}</option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-2">
        until
        <DayField className="input input-sm w-40" aria-label="Until" value={until} onChange={(day) => setUntil(day)} />
      </label>
      <span className="quiet">or for good</span>
      <span className="ml-auto flex gap-2">
        <button type="button" className="btn btn-primary btn-sm" onClick={save}>
          Have it come again
        </button>
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Close
        </button>
      </span>
    </section>
  );
}
