import { Link } from 'react-router';
import { drafts, useBeginnings, type Beginnings } from '../../api/drafts.ts';
import { plans } from '../../api/plans.ts';
import { useSession } from '../../api/session.ts';
import { useKept } from '../../parts/kept.ts';
import { BeginDialog } from '../../parts/BeginDialog.tsx';
import { DayEntry, Entry } from '../../parts/Entry.tsx';
import { PayeeChoice } from '../../parts/PayeeChoice.tsx';

const NOTHING = { purpose: '', from: '', to: '', payee: '', source: '', place: '', currency: '' };
type Typed = typeof NOTHING;

/** Begins a claim: from nothing, from an approved plan, or as a copy; what it is for, and, of a trip, its days. */
export function BeginClaim({ onClose }: { onClose: () => void }) {
  const self = useSession().data?.person?.id ?? '';
  const [typed, setTyped, drop] = useKept('new claim', NOTHING);
  const payee = typed.payee || self;
  const from = useBeginnings(payee).data ?? { payable: [], plans: [], claims: [] };
  const set = (fields: Partial<Typed>) => setTyped({ ...typed, ...fields });
  const [kind, number] = typed.source.split(' ');
  const plan = kind === 'plan' ? from.plans.find((p) => p.number === number) : undefined;
  const begin = async () => {
    const begun = plan
      ? await plans.claim(plan.number, plan.revision)
      : await drafts.begin({
          purpose: typed.purpose.trim(),
          tripFrom: typed.from || null,
          tripTo: typed.to || null,
          ...(kind === 'claim' && number ? { copyOf: number } : {}),
          ...(payee !== self ? { claimant: payee } : {}),
          ...(typed.place ? { entity: typed.place } : {}),
          ...(typed.currency ? { currency: typed.currency } : {}),
        });
    drop();
    return `/claims/${begun.number}`;
  };
  return (
    <BeginDialog
      title="A new claim"
      onClose={() => (drop(), onClose())}
      problem={plan ? null : problemOf(typed)}
      begin={begin}
    >
      <PayeeChoice value={payee} onChange={(next) => setTyped({ ...NOTHING, purpose: typed.purpose, payee: next })} />
      <SourceChoice from={from} value={typed.source} onChange={(source) => set(startOf(source, from, typed))} />
      {!plan && (
        <>
          <Entry label="What it is for" value={typed.purpose} onChange={(purpose) => set({ purpose })} />
          <div className="grid grid-cols-2 gap-3">
            <DayEntry
              label="First day, of a trip"
              value={typed.from}
              other={typed.to}
              onChange={(day) => set({ from: day })}
            />
            <DayEntry label="Last day" value={typed.to} other={typed.from} onChange={(to) => set({ to })} />
          </div>
          {kind === 'claim' && (
            <p className="quiet mt-1 text-sm">
              Its lines move with the first day. What came from a card or was private is not copied, nor are receipts.
            </p>
          )}
          <PaidWhere payable={from.payable} typed={typed} onChange={set} />
        </>
      )}
    </BeginDialog>
  );
}

function problemOf({ purpose, from, to }: Typed): string | null {
  if (!purpose.trim()) return 'Say what the claim is for.';
  return from && to && to < from ? 'The last day is before the first.' : null;
}

/** A copy begins with the purpose of what it is a copy of, where nothing else was typed. */
function startOf(source: string, from: Beginnings, typed: Typed): Partial<Typed> {
  const copied = from.claims.find((c) => `claim ${c.number}` === source);
  return { source, ...(copied && !typed.purpose ? { purpose: copied.purpose } : {}) };
}

interface SourceChoiceProps {
  from: Beginnings;
  value: string;
  onChange: (source: string) => void;
}

function SourceChoice({ from, value, onChange }: SourceChoiceProps) {
  return (
    <label className="mt-2 block">
      <span className="mb-1 flex justify-between font-medium">
        Begin with
        <Link className="link text-sm font-normal" to="/gather">
          or from receipts and charges
        </Link>
      </span>
      <select
        className="select w-full"
        aria-label="Begin with"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      >
        <option value="">nothing</option>
        {from.plans.map((p) => (
          <option key={p.number} value={`plan ${p.number}`}>
            plan {p.number}, {p.purpose}
          </option>
        ))}
        {from.claims.map((c) => (
          <option key={c.number} value={`claim ${c.number}`}>
            a copy of {c.number}, {c.purpose}
          </option>
        ))}
      </select>
    </label>
  );
}

interface PaidWhereProps {
  payable: Beginnings['payable'];
  typed: Typed;
  onChange: (fields: Partial<Typed>) => void;
}

/** By which entity and in which currency, for a person who has a choice. */
function PaidWhere({ payable, typed, onChange }: PaidWhereProps) {
  const there = payable.find((p) => p.entity === typed.place) ?? payable[0];
  if (!there || (payable.length < 2 && there.currencies.length < 2)) return null;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_8rem] gap-3">
      <label className="mt-2 block">
        <span className="mb-1 block font-medium">Paid by</span>
        <select
          className="select w-full"
          aria-label="Paid by"
          value={there.entity}
          onChange={(e) => onChange({ place: e.target.value, currency: '' })}
        >
          {payable.map((p) => (
            <option key={p.entity} value={p.entity}>
              {p.name}
            </option>
          ))}
        </select>
      </label>
      <label className="mt-2 block">
        <span className="mb-1 block font-medium">In</span>
        <select
          className="select w-full"
          aria-label="Currency"
          value={typed.currency || there.currencies[0]}
          onChange={(e) => onChange({ currency: e.target.value })}
        >
          {there.currencies.map((currency) => (
            <option key={currency}>{currency}</option>
          ))}
        </select>
      </label>
    </div>
  );
}
