import { useEffect, useRef, useState } from 'react';
import { gather } from '../../../api/gather.ts';
import { readTyped } from '../../../parts/typed.ts';
import { problemOfCountry } from '../../../parts/cellProblems.ts';
import { LineReceipt } from '../LineReceipt.tsx';
import { CodingFields } from '../../../parts/CodingFields.tsx';
import { SavedCodings } from '../../../parts/SavedCodings.tsx';
import { DraftItems } from './DraftItems.tsx';
import { Cell } from '../../../parts/Cell.tsx';
import { isComputed } from './fieldsAsked.ts';
import { LineFields } from './LineFields.tsx';
import type { LineRowProps } from './lineRow.types.ts';
import { newLineOf } from '../../../../contract/newLineOf.ts';
import { addReceipt } from './addReceipt.ts';
import { DivideOverLines } from './DivideOverLines.tsx';
import { RebillCells } from './RebillCells.tsx';
import { RepeatForm } from './RepeatForm.tsx';
import { FileLink } from '../../../parts/FileLink.tsx';
import { PartBench, type PartKind } from './PartBench.tsx';

/** What is opened below what a line says. */
type Opened = 'items' | 'parts' | 'repeat' | PartKind;

/** Everything of a line that has no column: country, quantity, coding, items, its receipt, and what can be done with it. */
export function LineDetails(props: LineRowProps) {
  const { view, line } = props;
  const [open, setOpen] = useState<Opened | null>(null);
  const below = useRef<HTMLDivElement>(null);
  // what opens takes the focus, so that the next Tab goes on in it
  useEffect(() => below.current?.querySelector<HTMLElement>('input, select, button')?.focus(), [open]);
  const receipt = view.receipts[line.id];
  return (
    <div className={receipt ? 'grid gap-4 lg:grid-cols-[minmax(0,1fr)_24rem]' : ''}>
      <div>
        <Facts {...props} />
        <div ref={below}>
          {open === 'items' && <Items {...props} onClose={() => setOpen(null)} />}
          {(open === 'tax' || open === 'split') && (
            <PartBench key={open} {...props} kind={open} onClose={() => setOpen(null)} />
          )}
          {open === 'parts' && <DivideOverLines {...props} onClose={() => setOpen(null)} />}
          {open === 'repeat' && <RepeatForm {...props} onClose={() => setOpen(null)} />}
        </div>
        {open !== 'items' && <Acts {...props} onOpen={setOpen} />}
      </div>
      {receipt && (
        <div className="flex h-80">
          <LineReceipt view={view} line={line} />
        </div>
      )}
    </div>
  );
}

function Facts({ view, line, row, draft, chart }: LineRowProps) {
  const coding = line.coding ?? {};
  return (
    <dl className="cells-open grid grid-cols-[8rem_minmax(0,1fr)] items-center gap-x-3 gap-y-1">
      <dt className="quiet">Country</dt>
      <dd className="w-20">
        <Cell
          label={`Country of line ${line.id}`}
          row={row}
          column="country"
          value={line.country ?? ''}
          placeholder="IE"
          problemOf={problemOfCountry}
          onSave={(typed, done) => draft.editLine(line.id, { country: typed.trim().toUpperCase() || null }, done)}
        />
      </dd>
      <LineFields {...{ view, line, row, draft, chart }} />
      {line.rate?.kind !== 'card' && !line.items?.length && !isComputed(chart, line.category ?? '', line.date) && (
        <>
          <dt className="quiet">Count × price</dt>
          <dd className="w-48">
            <QuantityCell {...{ line, row, draft }} />
          </dd>
        </>
      )}
      {!line.personal && (
        <>
          <dt className="quiet">Charged on to</dt>
          <dd>
            <RebillCells {...{ view, line, row, draft }} />
          </dd>
        </>
      )}
      {!line.personal && (
        <>
          <dt className="quiet">Coding</dt>
          <dd className="flex flex-wrap items-center gap-1">
            <CodingFields
              chart={chart}
              date={line.date}
              coding={coding}
              inherited={view.document.coding ?? {}}
              label={`line ${line.id}`}
              onChange={(next) => draft.editLine(line.id, { coding: next })}
            />
            <SavedCodings
              label={`line ${line.id}`}
              coding={coding}
              split={line.split ?? null}
              splits={!line.items?.length}
              onTake={(saved) =>
                draft.editLine(line.id, { coding: saved.coding, ...(saved.split ? { split: saved.split } : {}) })
              }
            />
          </dd>
        </>
      )}
    </dl>
  );
}

/** "3 × 12.50" as count and unit price; null when it is neither. */
function readQuantity(typed: string): { count: string; unitPrice: string } | null {
  const [count = null, unitPrice = null, ...more] = typed.split(/[x×*]/i).map(readTyped);
  return count && unitPrice && more.length === 0 ? { count, unitPrice } : null;
}

function QuantityCell({ line, row, draft }: Pick<LineRowProps, 'line' | 'row' | 'draft'>) {
  const { quantity } = line;
  return (
    <Cell
      label={`Count and unit price of line ${line.id}`}
      row={row}
      column="quantity"
      value={quantity ? `${quantity.count} × ${quantity.unitPrice}` : ''}
      placeholder="3 × 12.50"
      problemOf={(typed) =>
        !typed.trim() || readQuantity(typed) ? null : 'Type count × unit price, such as 3 × 12.50.'
      }
      onSave={(typed, done) => draft.editLine(line.id, { quantity: readQuantity(typed) }, done)}
    />
  );
}

function Acts(props: LineRowProps & { onOpen: (what: Opened) => void }) {
  const { view, line, draft, onRemove, onOpen, onFail } = props;
  const ids = view.document.lines.map((l) => l.id);
  const at = ids.indexOf(line.id);
  const ofCard = line.rate?.kind === 'card';
  const move = (by: number) => draft.order(ids.toSpliced(at, 1).toSpliced(at + by, 0, line.id));
  const takeOff = (what: 'charge' | 'receipt') =>
    void gather
      .unpair({ [view.claim.number]: view.claim.revision }, [{ claim: view.claim.number, line: line.id }], what)
      .then(() => onFail(null), onFail);
  const acts: [string, () => void, boolean][] = [
    [line.tax?.length ? `Tax (${line.tax.length})` : 'Tax', () => onOpen('tax'), !line.personal],
    [line.split ? `Split (${line.split.shares.length} shares)` : 'Split', () => onOpen('split'), !line.personal],
    [line.items?.length ? 'Items' : 'Break into items', () => onOpen('items'), !line.personal],
    ['Divide over lines', () => onOpen('parts'), !line.personal && !line.items?.length],
    ['Repeat', () => onOpen('repeat'), !line.personal && !ofCard],
    ['Duplicate', () => draft.write([newLineOf(line)]), !line.personal],
    ['Up', () => move(-1), at > 0],
    ['Down', () => move(1), at < ids.length - 1],
    ['Take the receipt off', () => takeOff('receipt'), view.receipts[line.id] !== undefined],
    ['Take the charge off', () => takeOff('charge'), ofCard],
    ['Take the line off', onRemove, true],
  ];
  return (
    <div className="mt-3 flex flex-wrap gap-x-4 gap-y-1">
      {acts
        .filter(([, , offered]) => offered)
        .map(([label, run]) => (
          <button key={label} type="button" className="link text-sm" onClick={run}>
            {label}
          </button>
        ))}
      <FileLink
        label={view.receipts[line.id] ? 'Another receipt' : 'Add a receipt'}
        onFile={(file) => void addReceipt(draft, view.claim.number, line.id, file)}
      />
    </div>
  );
}

function Items({ view, line, chart, onChanged, onFail, onClose }: LineRowProps & { onClose: () => void }) {
  const saved: LineRowProps['onChanged'] = (next) => {
    onClose();
    onChanged(next);
  };
  return <DraftItems key={view.claim.revision} {...{ view, line, chart, onFail, onClose }} onSaved={saved} />;
}
