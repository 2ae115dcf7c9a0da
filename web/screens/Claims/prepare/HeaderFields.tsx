import type { ReactNode } from 'react';
import type { MakerView } from '../../../api/claims.ts';
import { useChart } from '../../../api/chart.ts';
import type { HeaderSet } from '../../../api/drafts.ts';
import { longerThan, problemOfCountry, problemOfPurpose } from '../../../parts/cellProblems.ts';
import { Cell } from '../../../parts/Cell.tsx';
import { CodingFields } from '../../Sheet/CodingFields.tsx';
import type { Draft } from './useDraft.ts';

interface HeaderFieldsProps {
  view: MakerView;
  draft: Draft;
}

/** What a claim in preparation says of itself: what for, when, where, its usual coding; saved as it is typed. */
export function HeaderFields({ view, draft }: HeaderFieldsProps) {
  const { purpose, tripFrom, tripTo, country, place, reference, note } = view.claim;
  const chart = useChart().data;
  const text = (field: 'place' | 'reference' | 'note', most: number) => ({
    problemOf: longerThan(most),
    onSave: saveText(draft, field),
  });
  return (
    <div className="cells-open mt-1">
      <div className="grid gap-x-3 sm:grid-cols-[minmax(0,1fr)_5rem_12rem_10rem_10rem]">
        <Entry
          head="What it is for"
          label="What the claim is for"
          value={purpose}
          problemOf={problemOfPurpose('claim')}
          onSave={(typed, done) => draft.editHeader({ purpose: typed.trim() }, done)}
        />
        <Entry
          head="Country"
          label="Country of the claim"
          value={country}
          placeholder="IE"
          problemOf={problemOfCountry}
          onSave={(typed, done) => draft.editHeader({ country: typed.trim().toUpperCase() || null }, done)}
        />
        <Entry head="City or place" label="Place of the claim" value={place} {...text('place', 120)} />
        <Entry
          head="From"
          label="First day"
          type="date"
          value={tripFrom}
          problemOf={(typed) => (typed && tripTo && typed > tripTo ? 'It is after the last day.' : null)}
          onSave={(typed, done) => draft.editHeader({ tripFrom: typed || null }, done)}
        />
        <Entry
          head="To"
          label="Last day"
          type="date"
          value={tripTo}
          problemOf={(typed) => (typed && tripFrom && typed < tripFrom ? 'It is before the first day.' : null)}
          onSave={(typed, done) => draft.editHeader({ tripTo: typed || null }, done)}
        />
      </div>
      <div className="mt-1 grid items-end gap-x-3 sm:grid-cols-[12rem_minmax(0,1fr)_auto]">
        <Entry head="Your reference" label="Your reference" value={reference} {...text('reference', 60)} />
        <Entry head="Note for whoever looks at it" label="Note" value={note} {...text('note', 2000)} />
        <Named head="Coding, where a line has none">
          <CodingFields
            chart={chart}
            date={tripFrom ?? new Date().toISOString().slice(0, 10)}
            coding={view.document.coding ?? {}}
            inherited={{}}
            label="the claim"
            onChange={(coding) => draft.editHeader({ coding })}
          />
        </Named>
      </div>
    </div>
  );
}

const saveText = (draft: Draft, field: keyof HeaderSet) => (typed: string, done: (error: Error | null) => void) =>
  draft.editHeader({ [field]: typed.trim() || null }, done);

const Named = ({ head, children }: { head: string; children: ReactNode }) => (
  <div>
    <span className="quiet block px-1 text-xs">{head}</span>
    {children}
  </div>
);

interface EntryProps {
  head: string;
  label: string;
  type?: 'text' | 'date';
  value: string | null;
  placeholder?: string;
  problemOf: (typed: string) => string | null;
  onSave: (typed: string, done: (error: Error | null) => void) => void;
}
const Entry = ({ head, value, ...cell }: EntryProps) => (
  <Named head={head}>
    <Cell {...cell} row={-1} column={head} value={value ?? ''} />
  </Named>
);
