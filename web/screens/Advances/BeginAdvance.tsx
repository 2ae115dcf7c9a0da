import { useKept } from '../../parts/kept.ts';
import { ADVANCE_KINDS, type AdvanceKind } from '../../../core/advances/advance.schema.ts';
import { advances } from '../../api/advances.ts';
import { BeginDialog } from '../../parts/BeginDialog.tsx';
import { DayEntry, Entry } from '../../parts/Entry.tsx';
import { readMoney } from '../../parts/readMoney.ts';
import { ADVANCE_KINDS_SAID } from '../../words/sayAdvance.ts';

const NOTHING = { purpose: '', amount: '', kind: 'trip' as AdvanceKind, from: '', to: '' };

/** Begins an advance: what for, how much, and when, if it is for a trip. */
export function BeginAdvance({ currency, onClose }: { currency: string; onClose: () => void }) {
  const [typed, setTyped, drop] = useKept('new advance', NOTHING);
  const set = (fields: Partial<typeof typed>) => setTyped({ ...typed, ...fields });
  const money = readMoney(typed.amount, currency);
  const problem = !typed.purpose.trim()
    ? 'Say what the money is for.'
    : !money.ok
      ? money.problem
      : typed.from && typed.to && typed.to < typed.from
        ? 'The last day is before the first.'
        : null;
  const begin = async () => {
    if (!money.ok) throw new Error(money.problem);
    const { number } = await advances.begin({
      kind: typed.kind,
      purpose: typed.purpose.trim(),
      amount: money.amount,
      currency: money.currency,
      from: typed.from || null,
      to: typed.to || null,
    });
    drop();
    return `/advances/${number}`;
  };
  return (
    <BeginDialog title="A new advance" onClose={() => (drop(), onClose())} problem={problem} begin={begin}>
      <Entry label="What the money is for" value={typed.purpose} onChange={(purpose) => set({ purpose })} />
      <Entry
        label="How much"
        placeholder={`300 ${currency}, or 60000 KES`}
        value={typed.amount}
        onChange={(amount) => set({ amount })}
      />
      <label className="mt-2 block">
        <span className="mb-1 block font-medium">Kind</span>
        <select
          className="select w-full"
          value={typed.kind}
          onChange={(e) => set({ kind: e.target.value as AdvanceKind })}
        >
          {ADVANCE_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {ADVANCE_KINDS_SAID[kind]}
            </option>
          ))}
        </select>
      </label>
      {typed.kind === 'trip' && (
        <div className="grid grid-cols-2 gap-3">
          <DayEntry label="First day" value={typed.from} other={typed.to} onChange={(from) => set({ from })} />
          <DayEntry label="Last day" value={typed.to} other={typed.from} onChange={(to) => set({ to })} />
        </div>
      )}
    </BeginDialog>
  );
}
