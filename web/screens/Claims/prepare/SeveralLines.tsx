import { useState } from 'react';
import type { Coding } from '../../../../core/documents/case.schema.ts';
import { useChart } from '../../../api/chart.ts';
import type { MakerView } from '../../../api/claims.ts';
import type { LineSet } from '../../../api/drafts.ts';
import { CategoryChoice } from '../../../parts/CategoryChoice.tsx';
import { toast } from '../../../parts/toast.tsx';
import { CodingFields } from '../../../parts/CodingFields.tsx';
import { SavedCodings } from '../../../parts/SavedCodings.tsx';
import type { Draft } from './useDraft.ts';
import { DayField } from '../../../parts/days/DayField.tsx';

interface SeveralLinesProps {
  view: MakerView;
  ids: readonly string[];
  draft: Draft;
  onFail: (error: unknown) => void;
  onClose: () => void;
}

/** Changes the chosen lines alike: what is left empty stays as it is on each. */
export function SeveralLines({ view, ids, draft, onFail, onClose }: SeveralLinesProps) {
  const chart = useChart().data;
  const [set, setSet] = useState<LineSet>({});
  const [codes, setCodes] = useState<Coding>({});
  const first = view.document.lines.find((l) => l.id === ids[0])!;
  const nothing = Object.keys(set).length === 0 && Object.keys(codes).length === 0;
  const apply = () =>
    draft.editSeveral({ ids: [...ids], set, ...(Object.keys(codes).length ? { codes } : {}) }, (error) => {
      if (error) return onFail(error);
      toast({ text: ids.length === 1 ? `Line ${ids[0]} is changed` : `${ids.length} lines are changed` });
      onClose();
    });
  return (
    <section
      aria-label="The chosen lines"
      className="mb-2 flex flex-wrap items-center gap-2 rounded-box border border-base-300 bg-base-200 px-3 py-2 text-sm"
    >
      <span>{ids.length} chosen: set</span>
      <DayField
        className="input input-xs w-36"
        aria-label="Date of the chosen lines"
        value={set.date ?? ''}
        onChange={(day) => setSet(withField(set, 'date', day))}
      />
      <CategoryChoice
        label="Category of the chosen lines"
        value={set.category ?? ''}
        none="category"
        chart={chart}
        onChange={(category) => setSet(withField(set, 'category', category))}
      />
      <input
        className="input input-xs w-20"
        aria-label="Country of the chosen lines"
        placeholder="country"
        maxLength={2}
        value={set.country ?? ''}
        onChange={(e) => setSet(withField(set, 'country', e.target.value.toUpperCase()))}
      />
      <CodingFields
        chart={chart}
        date={first.date}
        coding={codes}
        inherited={{}}
        label="the chosen lines"
        onChange={setCodes}
      />
      <SavedCodings label="the chosen lines" coding={codes} onTake={(saved) => setCodes(saved.coding)} />
      <span className="ml-auto flex gap-2">
        <button type="button" className="btn btn-primary btn-sm" disabled={nothing} onClick={apply}>
          Change {ids.length === 1 ? 'it' : `all ${ids.length}`}
        </button>
        <button type="button" className="btn btn-sm" onClick={onClose}>
          Cancel
        </button>
      </span>
    </section>
  );
}

/** A field that is left empty is not set at all. */
function withField(set: LineSet, field: 'date' | 'category' | 'country', value: string): LineSet {
  const { [field]: _, ...rest } = set;
  return value ? { ...rest, [field]: value } : rest;
}
