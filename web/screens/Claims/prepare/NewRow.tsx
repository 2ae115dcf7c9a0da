import { Camera } from 'lucide-react';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { Chart } from '../../../api/chart.ts';
import type { MakerView } from '../../../api/claims.ts';
import type { NewLine } from '../../../api/drafts.ts';
import type { GatheredReceipt } from '../../../api/gather.ts';
import { fromMinor } from '../../../../core/numbers/amount.ts';
import type { Field } from '../../../../core/evidence/reading/reading.types.ts';
import { receiptSays } from '../../../words/receiptSays.ts';
import { useKept } from '../../../parts/kept.ts';
import { toast } from '../../../parts/toast.tsx';
import { useUnsaved } from '../../../parts/unsaved.ts';
import { readMoney } from '../../../parts/readMoney.ts';
import { isComputed } from './fieldsAsked.ts';
import { usePaper, type Paper } from './usePaper.ts';
import type { Draft } from './useDraft.ts';
import { CategoryChoice } from '../../../parts/CategoryChoice.tsx';
import { DayField } from '../../../parts/days/DayField.tsx';

interface NewRowProps {
  view: MakerView;
  row: number;
  chart: Chart | undefined;
  draft: Draft;
}
interface Typed {
  date: string;
  merchant: string;
  what: string;
  category: string;
  amount: string;
  paidBy: 'own' | 'central';
  /** The paper it is made from, and whether what was read of it stands in the row. */
  receipt: string | null;
  taken: boolean;
}
const EMPTY: Typed = {
  date: '',
  merchant: '',
  what: '',
  category: '',
  amount: '',
  paidBy: 'own',
  receipt: null,
  taken: false,
};

/** The row at the end in which the next line is typed; what is in it is kept until it can be added, also across a reload. */
export function NewRow({ view, row, chart, draft }: NewRowProps) {
  const [typed, setTyped] = useKept<Typed>('new line', EMPTY);
  const [problem, setProblem] = useState<string | null>(null);
  const first = useRef<HTMLInputElement>(null);
  const set = (fields: Partial<Typed>) => setTyped({ ...typed, ...fields });
  const add = () => {
    const read = lineOf(typed, view.claim.currency, isComputed(chart, typed.category, typed.date));
    if (typeof read === 'string') return setProblem(read);
    setProblem(null);
    // the row is free at once: what it said is on its way, and comes back where it is refused
    setTyped({ ...EMPTY, date: typed.date, category: typed.category, paidBy: typed.paidBy });
    first.current?.focus();
    draft.write([read], (error) => error && refused(typed, error.message));
  };
  const free = !typed.merchant && !typed.what && !typed.amount && !typed.receipt;
  const paper = usePaper(
    typed.receipt ?? null,
    (receipt) => set({ receipt, taken: false }),
    (read) => !typed.taken && set({ ...readOf(read, typed), taken: true }),
  );
  const putBack = (was: Typed, says: string) => {
    setTyped(was);
    setProblem(says);
  };
  const latest = useRef({ free, putBack });
  useEffect(() => {
    latest.current = { free, putBack };
  });
  const refused = (was: Typed, says: string) => {
    if (latest.current.free) return latest.current.putBack(was, says);
    const act = { label: 'Put it back', run: () => latest.current.putBack(was, says) };
    toast({ text: `A new line (${sayTyped(was)}) was not added: ${says}`, act, tone: 'bad', stays: true });
  };
  useUnsaved(!free, { says: 'A new line', kept: true, show: () => first.current?.focus() });
  const onKeyDown = (event: KeyboardEvent) => {
    // Enter in the list of categories, which React counts to this row too, takes a category and nothing else
    const ofRow = event.currentTarget.contains(event.target as Node);
    if (
      event.key !== 'Enter'
      || event.ctrlKey
      || event.metaKey
      || !ofRow
      || (event.target as HTMLElement).tagName !== 'INPUT'
    )
      return;
    event.preventDefault();
    add();
  };
  return (
    <>
      <tr className="line-row cells-open border-t border-base-300 align-top" onKeyDown={onKeyDown}>
        <td className="quiet px-2 py-1 text-sm">
          <PaperButton paper={paper} />
        </td>
        <td className="px-1 py-0.5">
          <DayField
            ref={first}
            className="cell"
            aria-label="Date of a new line"
            data-cell={`${row}:date`}
            value={typed.date}
            onChange={(day) => set({ date: day })}
          />
        </td>
        <TextCell
          label="Merchant of a new line"
          placeholder="Merchant"
          at={`${row}:merchant`}
          value={typed.merchant}
          onType={(merchant) => set({ merchant })}
        />
        <TextCell
          label="What a new line was for"
          placeholder="What it was for"
          at={`${row}:what`}
          value={typed.what}
          onType={(what) => set({ what })}
        />
        <td className="px-1 py-1">
          <CategoryChoice
            label="Category of a new line"
            value={typed.category}
            none="category"
            chart={chart}
            onChange={(category) => set({ category })}
          />
        </td>
        <TextCell
          label="Amount of a new line"
          placeholder="12.50"
          at={`${row}:amount`}
          value={typed.amount}
          right
          onType={(amount) => set({ amount })}
        />
        <td className="px-1 py-1">
          <select
            className="select select-xs w-full"
            aria-label="Who paid a new line"
            value={typed.paidBy}
            onChange={(e) => set({ paidBy: e.target.value as Typed['paidBy'] })}
          >
            <option value="own">own money</option>
            <option value="central">centrally</option>
          </select>
        </td>
        <td className="px-2 py-1 text-right">
          <button type="button" className="btn btn-primary btn-xs" onClick={add}>
            Add
          </button>
        </td>
      </tr>
      {paper.says && (
        <tr>
          <td />
          <td colSpan={7} className="px-2 pb-1 text-sm">
            <span role="status">The receipt: {paper.says}</span>
            {typed.receipt && (
              <button type="button" className="link ml-3" onClick={() => set({ receipt: null, taken: false })}>
                Without it
              </button>
            )}
          </td>
        </tr>
      )}
      {problem && (
        <tr>
          <td />
          <td colSpan={7} role="alert" className="px-2 pb-1 text-sm text-error">
            {problem}
          </td>
        </tr>
      )}
    </>
  );
}

interface TextCellProps {
  label: string;
  placeholder: string;
  at: string;
  value: string;
  right?: boolean;
  onType: (value: string) => void;
}
const TextCell = ({ label, placeholder, at, value, right = false, onType }: TextCellProps) => (
  <td className="px-1 py-0.5">
    <input
      className={`cell ${right ? 'text-right tabular-nums' : ''}`}
      aria-label={label}
      placeholder={placeholder}
      data-cell={at}
      value={value}
      onChange={(e) => onType(e.target.value)}
    />
  </td>
);

/** The line that was typed, or what it lacks. The amount of one that is computed comes from what is said of it afterwards. */
function lineOf(typed: Typed, currency: string, computed: boolean): NewLine | string {
  if (!typed.date) return 'Choose the day of the new line.';
  if (!typed.category) return 'Choose a category for the new line.';
  const money = computed && !typed.amount.trim() ? nothing(currency) : readMoney(typed.amount, currency);
  if (!money.ok) return money.problem;
  return {
    date: typed.date,
    amount: { amount: money.amount, currency: money.currency },
    category: typed.category,
    merchant: typed.merchant.trim() || null,
    description: typed.what.trim() || null,
    paidBy: typed.paidBy,
    ...(typed.receipt ? { receipt: typed.receipt } : {}),
  };
}

/** What a paper says, where nothing was typed. */
function readOf(paper: GatheredReceipt, typed: Typed): Partial<Typed> {
  const says = (field: Field) => receiptSays(paper, field);
  const amount = says('amount') && `${says('amount')} ${says('currency')}`.trim();
  return {
    date: says('date') || typed.date,
    merchant: typed.merchant || says('merchant'),
    amount: typed.amount || amount,
  };
}

/** Takes a photo, where there is a camera, or a file: the new line begins with what is read of it. */
function PaperButton({ paper }: { paper: Paper }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="btn btn-xs" onClick={() => input.current?.click()}>
        <Camera size={14} /> Photo
      </button>
      <input
        ref={input}
        type="file"
        aria-label="Receipt of a new line"
        className="hidden"
        accept="image/*,application/pdf"
        capture="environment"
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          e.target.value = '';
          if (file) paper.add(file);
        }}
      />
    </>
  );
}

const nothing = (currency: string) => ({ ok: true as const, amount: fromMinor(0n, currency), currency });

const sayTyped = ({ date, merchant, what, amount }: Typed): string =>
  [date, merchant, what, amount].filter(Boolean).join(', ');
