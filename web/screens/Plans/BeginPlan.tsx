import { useKept } from '../../parts/kept.ts';
import { useSession } from '../../api/session.ts';
import { plans, useTemplates } from '../../api/plans.ts';
import { BeginDialog } from '../../parts/BeginDialog.tsx';
import { DayEntry, Entry } from '../../parts/Entry.tsx';
import { PayeeChoice } from '../../parts/PayeeChoice.tsx';

const NOTHING = { purpose: '', kind: '', country: '', place: '', from: '', to: '', claimant: '' };

/** Begins a plan: what for, of which kind, where and when; its kind says with which estimates. */
export function BeginPlan({ onClose }: { onClose: () => void }) {
  const templates = useTemplates().data?.templates ?? [];
  const self = useSession().data?.person?.id ?? '';
  const [typed, setTyped, drop] = useKept('new plan', NOTHING);
  const set = (fields: Partial<typeof typed>) => setTyped({ ...typed, ...fields });
  const kind = typed.kind || (templates[0]?.id ?? '');
  const begin = async () => {
    const { purpose, country, place, from, to, claimant } = typed;
    const { number } = await plans.begin({
      kind,
      purpose: purpose.trim(),
      country: country.trim().toUpperCase() || null,
      place: place.trim() || null,
      from: from || null,
      to: to || null,
      ...(claimant && claimant !== self ? { claimant } : {}),
    });
    drop();
    return `/plans/${number}`;
  };
  return (
    <BeginDialog title="A new plan" onClose={() => (drop(), onClose())} problem={problemOf(typed)} begin={begin}>
      <Entry label="What the trip is for" value={typed.purpose} onChange={(purpose) => set({ purpose })} />
      <label className="mt-2 block">
        <span className="mb-1 block font-medium">Kind of trip</span>
        <select className="select w-full" value={kind} onChange={(e) => set({ kind: e.target.value })}>
          {templates.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </select>
      </label>
      <div className="grid grid-cols-[6rem_1fr] gap-3">
        <Entry label="Country" placeholder="PT" value={typed.country} onChange={(country) => set({ country })} />
        <Entry label="City or place" value={typed.place} onChange={(place) => set({ place })} />
      </div>
      <div className="grid grid-cols-2 gap-3">
        <DayEntry label="First day" value={typed.from} other={typed.to} onChange={(from) => set({ from })} />
        <DayEntry label="Last day" value={typed.to} other={typed.from} onChange={(to) => set({ to })} />
      </div>
      <PayeeChoice value={typed.claimant || self} onChange={(claimant) => set({ claimant })} />
    </BeginDialog>
  );
}

function problemOf({ purpose, country, from, to }: { purpose: string; country: string; from: string; to: string }) {
  if (!purpose.trim()) return 'Say what the trip is for.';
  if (!/^([a-z]{2})?$/i.test(country.trim())) return 'The country is two letters, such as PT.';
  return from && to && to < from ? 'The last day is before the first.' : null;
}
