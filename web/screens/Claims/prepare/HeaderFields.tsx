import { drafts, useBeginnings } from '../../../api/drafts.ts';
import type { MakerView } from '../../../api/claims.ts';
import { sayCoding, useChart } from '../../../api/chart.ts';
import { longerThan } from '../../../parts/cellProblems.ts';
import { Attachments } from '../../../parts/Attachments.tsx';
import { DraftHead } from '../../../parts/draft/DraftHead.tsx';
import {
  HeaderCell,
  Named,
  PurposeCell,
  sayTrip,
  TripCells,
  type SaveTrip,
  type TripSaid,
} from '../../../parts/TripCells.tsx';
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

/** What a claim in preparation says of itself: what for, and folded when, where, its usual coding, its files; saved as it is typed. */
export function HeaderFields({ view, draft }: HeaderFieldsProps) {
  const { claim } = view;
  const { number, tripFrom, tripTo } = claim;
  const said = { ...claim, from: tripFrom, to: tripTo };
  const save: SaveTrip = (set, done) => draft.editHeader(asHeader(set), done);
  return (
    <DraftHead
      back={{ to: '/claims', label: 'Back to your claims' }}
      number={number}
      purpose={<PurposeCell of="claim" said={said} onSave={save} />}
      says={useSaid(view)}
      fields={['of the claim', 'First day', 'Last day', ...NOTES.map(({ label }) => label)]}
    >
      <TripCells of="claim" said={said} onSave={save} />
      <div className="mt-1 grid items-end gap-x-3 sm:grid-cols-[10rem_minmax(0,1fr)_minmax(0,1fr)_auto_auto]">
        {NOTES.map(({ field, head, label, longest }) => (
          <HeaderCell
            key={field}
            head={head}
            label={label}
            value={claim[field]}
            problemOf={longerThan(longest)}
            onSave={(typed, done) => draft.editHeader({ [field]: typed.trim() || null }, done)}
          />
        ))}
        <PaidIn {...{ view, draft }} />
        <UsualCoding {...{ view, draft }} />
      </div>
      <div className="mt-2">
        <Attachments
          of="the claim"
          attachments={view.attachments}
          onAdd={(file) => draft.run('the files', (r) => drafts.attach(number, r, file))}
          onRemove={({ id }) => draft.run('the files', (r) => drafts.detach(number, r, id))}
        />
      </div>
    </DraftHead>
  );
}

/** What the folded fields say, in a line. */
function useSaid(view: MakerView): string {
  const chart = useChart().data;
  const { claim, document, attachments } = view;
  const files = attachments.length === 1 ? '1 file' : `${attachments.length} files`;
  return [
    sayTrip(claim.tripFrom, claim.tripTo),
    [claim.place, claim.country].filter(Boolean).join(', '),
    sayCoding(document.coding ?? {}, chart),
    claim.reference && `reference ${claim.reference}`,
    claim.note && 'a note',
    claim.financeNote && 'a note for finance',
    attachments.length > 0 && files,
    claim.preparer !== claim.claimant && `for ${claim.claimant}`,
  ]
    .filter(Boolean)
    .join(' · ');
}

function UsualCoding({ view, draft }: HeaderFieldsProps) {
  const chart = useChart().data;
  const coding = view.document.coding ?? {};
  return (
    <Named head="Coding, where a line has none">
      <span className="flex flex-wrap items-center gap-1">
        <CodingFields
          chart={chart}
          date={view.claim.tripFrom ?? new Date().toISOString().slice(0, 10)}
          coding={coding}
          inherited={{}}
          label="the claim"
          onChange={(next) => draft.editHeader({ coding: next })}
        />
        <SavedCodings
          label="the claim"
          coding={coding}
          onTake={(saved) => draft.editHeader({ coding: saved.coding })}
        />
      </span>
    </Named>
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
