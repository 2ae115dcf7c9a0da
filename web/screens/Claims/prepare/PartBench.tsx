import { useState } from 'react';
import { mergeCoding } from '../../../../core/figures/coding/mergeCoding.ts';
import { readAmount } from '../../../../core/numbers/amount.ts';
import type { Item, Line, TaxEntry } from '../../../../core/documents/case.schema.ts';
import { SplitEditor } from '../../../parts/SplitEditor.tsx';
import { TaxEditor } from '../../../parts/TaxEditor.tsx';
import { useSavedLater } from '../../../parts/useSavedLater.ts';
import { PricesWithoutTax } from './PricesWithoutTax.tsx';
import { ProposedTaxes } from './ProposedTaxes.tsx';
import type { LineRowProps } from './lineRow.types.ts';

export type PartKind = 'tax' | 'split';
type PartBenchProps = Pick<LineRowProps, 'view' | 'line' | 'draft' | 'chart'> & { kind: PartKind; onClose: () => void };

/** The taxes, or the shares, of a line in preparation or of one of its items; saved as they are typed. */
export function PartBench({ kind, onClose, ...props }: PartBenchProps) {
  const { line } = props;
  const items = line.items?.filter((i) => !i.personal) ?? [];
  const [item, setItem] = useState<string | null>(items[0]?.id ?? null);
  const Bench = kind === 'tax' ? Taxes : Shares;
  return (
    <section
      aria-label={`${kind === 'tax' ? 'Tax' : 'Split'} of line ${line.id}`}
      className="mt-3 overflow-x-auto border-l-4 border-primary bg-base-100 px-4 py-3"
    >
      {items.length > 0 && <ItemChoice items={items} value={item} onChange={setItem} />}
      <Bench key={`${item} ${line.currency}`} {...props} item={item} />
      <button type="button" className="btn btn-sm mt-3" onClick={onClose}>
        Close
      </button>
    </section>
  );
}

function ItemChoice({
  items,
  value,
  onChange,
}: {
  items: readonly Item[];
  value: string | null;
  onChange: (id: string) => void;
}) {
  return (
    <label className="mb-2 flex items-center gap-2 text-sm">
      Item
      <select className="select select-sm w-64" value={value ?? ''} onChange={(e) => onChange(e.target.value)}>
        {items.map((i) => (
          <option key={i.id} value={i.id}>
            {i.id} · {i.description} · {i.amount}
          </option>
        ))}
      </select>
    </label>
  );
}

type PartProps = Omit<PartBenchProps, 'kind' | 'onClose'> & { item: string | null };

const partOf = ({ line, item }: Pick<PartProps, 'line' | 'item'>): Line | Item =>
  item === null ? line : line.items!.find((i) => i.id === item)!;

/** Saves fields of the line, or of its item among the others. */
const saverOf =
  ({ line, item, draft }: PartProps) =>
  (set: Pick<Item, 'tax' | 'split'>) => {
    if (item === null) draft.editLine(line.id, { ...(set.tax ? { tax: set.tax } : {}), ...splitOf(set) });
    else draft.editLine(line.id, { items: line.items!.map((i) => (i.id === item ? { ...i, ...set } : i)) });
  };
const splitOf = (set: Pick<Item, 'split'>) => ('split' in set ? { split: set.split ?? null } : {});

const computedOf = ({ view, line, item }: PartProps) => view.parts[line.id]?.find((p) => p.item === item);

const readableIn =
  (currency: string) =>
  (entries: readonly TaxEntry[]): boolean =>
    entries.every((e) => [e.gross, e.tax].every((a) => a == null || readAmount(a, currency) !== null));

function Taxes(props: PartProps) {
  const { line, item, chart, draft } = props;
  const readable = readableIn(line.currency);
  const save = saverOf(props);
  const [entries, setEntries] = useSavedLater<TaxEntry[]>(
    'The tax',
    partOf(props).tax ?? [],
    (tax) => save({ tax }),
    readable,
  );
  const typed = item === null && line.rate?.kind !== 'card' && !line.quantity;
  const [version, setVersion] = useState(0);
  const take = (tax: TaxEntry[]) => {
    setEntries(tax);
    setVersion(version + 1);
  };
  return (
    <>
      <TaxEditor
        key={version}
        {...{ entries, line, chart }}
        rows={computedOf(props)?.tax ?? []}
        onChange={setEntries}
      />
      {!readable(entries) && (
        <p role="alert" className="text-sm text-error">
          An amount in {line.currency} is wanted where something else is typed; it is saved then.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-4">
        {item === null && entries.length === 0 && <ProposedTaxes {...props} onTake={take} />}
        {typed && (
          <PricesWithoutTax
            {...{ line, chart }}
            onTake={(amount, tax) => {
              draft.editLine(line.id, { amount: { amount, currency: line.currency }, tax });
              take(tax);
            }}
          />
        )}
      </div>
    </>
  );
}

function Shares(props: PartProps) {
  const { view, line, item, chart } = props;
  const part = partOf(props);
  const save = saverOf(props);
  const [split, setSplit] = useSavedLater('The split', part.split ?? null, (next) => save({ split: next }));
  return (
    <SplitEditor
      what={item === null ? 'line' : 'item'}
      split={split}
      figures={computedOf(props)?.shares ?? []}
      line={line}
      chart={chart}
      inherited={mergeCoding(view.document.coding, line.coding, item === null ? null : part.coding)}
      ledgerCurrency={view.claim.ledgerCurrency}
      set={setSplit}
    />
  );
}
