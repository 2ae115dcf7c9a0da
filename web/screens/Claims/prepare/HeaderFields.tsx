import { useBeginnings } from '../../../api/drafts.ts';
import type { MakerView } from '../../../api/claims.ts';
import { useChart } from '../../../api/chart.ts';
import { longerThan } from '../../../parts/cellProblems.ts';
import { HeaderCell, Named, TripCells, type TripSaid } from '../../../parts/TripCells.tsx';
import { CodingFields } from '../../../parts/CodingFields.tsx';
import { SavedCodings } from '../../../parts/SavedCodings.tsx';
import type { Draft } from './useDraft.ts';

interface HeaderFieldsProps {
  view: MakerView;
  draft: Draft;
}

const NOTES = [
  { field: 'reference', head: 'Your reference', label: 'Your reference', longest: 60 },
  { field: 'note', head: 'Note for whoever looks at it', label: 'Note', longest: 2000 },
  { field: 'financeNote', head: 'Note for finance alone', label: 'Note for finance', longest: 2000 },
] as const;

/** What a claim in preparation says of itself: what for, when, where, its usual coding; saved as it is typed. */
export function HeaderFields({ view, draft }: HeaderFieldsProps) {
  const { tripFrom, tripTo } = view.claim;
  const chart = useChart().data;
  return (
    <div className="cells-open mt-1">
      <TripCells
        of="claim"
        said={{ ...view.claim, from: tripFrom, to: tripTo }}
        onSave={(set, done) => draft.editHeader(asHeader(set), done)}
      />
      <div className="mt-1 grid items-end gap-x-3 sm:grid-cols-[10rem_minmax(0,1fr)_minmax(0,1fr)_auto_auto]">
        {NOTES.map(({ field, head, label, longest }) => (
          <HeaderCell
            key={field}
            head={head}
            label={label}
            value={view.claim[field]}
            problemOf={longerThan(longest)}
            onSave={(typed, done) => draft.editHeader({ [field]: typed.trim() || null }, done)}
          />
        ))}
        <PaidIn {...{ view, draft }} />
        <Named head="Coding, where a line has none">
          <span className="flex flex-wrap items-center gap-1">
            <CodingFields
              chart={chart}
              date={tripFrom ?? new Date().toISOString().slice(0, 10)}
              coding={view.document.coding ?? {}}
              inherited={{}}
              label="the claim"
              onChange={(coding) => draft.editHeader({ coding })}
            />
            <SavedCodings
              label="the claim"
              coding={view.document.coding ?? {}}
              onTake={(saved) => draft.editHeader({ coding: saved.coding })}
            />
          </span>
        </Named>
      </div>
    </div>
  );
}

/** In which currency it is paid, for a claimant who has a choice. */
function PaidIn({ view, draft }: HeaderFieldsProps) {
  const { claim } = view;
  const choice = useBeginnings(claim.claimantId).data?.payable.find((p) => p.entity === claim.entity)?.currencies ?? [];
  if (choice.length < 2) return null;
  return (
    <Named head="Paid in">
      <select
        className="select select-xs w-20"
        aria-label="Currency of the claim"
        value={claim.currency}
        onChange={(e) => draft.editHeader({ currency: e.target.value })}
      >
        {choice.map((currency) => (
          <option key={currency}>{currency}</option>
        ))}
      </select>
    </Named>
  );
}

/** A claim calls the days of its trip by another name. */
const asHeader = ({ from, to, ...set }: Partial<TripSaid>) => ({
  ...set,
  ...(from === undefined ? {} : { tripFrom: from }),
  ...(to === undefined ? {} : { tripTo: to }),
});
