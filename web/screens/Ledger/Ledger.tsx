import { Download } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { useJournals, useReady, type JournalHeader, type ReadyClaim } from '../../api/journals.ts';
import type { Person } from '../../api/session.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { Money } from '../../parts/Money.tsx';
import { JournalFilter, NO_WISHES } from './JournalFilter.tsx';
import { useRovingRows } from '../../parts/useRovingRows.ts';

/** Claims ready to be posted, and the journals there are, newest first. */
export default function Ledger({ person }: { person: Person }) {
  const [wishes, setWishes] = useState(NO_WISHES);
  const { data, error, mutate, size, setSize } = useJournals(useDeferredValue(wishes));
  const journals = data?.flatMap((page) => page.journals) ?? [];
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return (
    <div>
      <div className="flex items-center gap-4 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">Ledger</h1>
        <a className="btn btn-sm ml-auto" href="/api/journals/export.csv" download>
          <Download size={15} /> Download as CSV
        </a>
      </div>
      {person.roles.includes('controller') && <Ready />}
      <h2 className="flex items-baseline gap-4 px-4 pt-3 pb-1 font-semibold">
        Journals <Totals totals={data?.[0]?.totals ?? []} />
      </h2>
      <JournalFilter wishes={wishes} entities={data?.[0]?.entities ?? []} onChange={setWishes} />
      {!data ? <Loading shape="rows" /> : <JournalList journals={journals} any={wishes === NO_WISHES} />}
      {data?.at(-1)?.next && (
        <button type="button" className="btn btn-sm m-4" onClick={() => void setSize(size + 1)}>
          Show more
        </button>
      )}
    </div>
  );
}

interface TotalsProps {
  totals: readonly { currency: string; journals: number; amount: string }[];
}

/** How many there are and what they come to, each currency by itself. */
const Totals = ({ totals }: TotalsProps) => (
  <span className="quiet flex flex-wrap gap-x-4 text-sm font-normal">
    {totals.map((t) => (
      <span key={t.currency}>
        {t.journals} over <Money amount={t.amount} currency={t.currency} />
      </span>
    ))}
  </span>
);

/** What the claims come to, by currency. */
function totalsOf(claims: readonly ReadyClaim[]): TotalsProps['totals'] {
  const known = claims.filter((c) => c.toPay !== null);
  return [...groupBy(known, (c) => c.currency)].map(([currency, same]) => ({
    currency,
    journals: same.length,
    amount: fromMinor(
      same.reduce((a, c) => a + toMinor(c.toPay!, currency), 0n),
      currency,
    ),
  }));
}

function Ready() {
  const { data, error, mutate } = useReady();
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return (
    <section aria-labelledby="ready">
      <h2 id="ready" className="flex items-baseline gap-4 px-4 pt-1 pb-1 font-semibold">
        Ready to post <Totals totals={totalsOf(data?.claims ?? [])} />
      </h2>
      {data?.claims.length === 0 && <p className="quiet px-4">No cleared claim is waiting.</p>}
      <ul className="border-y border-base-300 bg-base-100">
        {data?.claims.map((claim) => (
          <ReadyClaim key={claim.number} claim={claim} />
        ))}
      </ul>
    </section>
  );
}

function ReadyClaim({ claim }: { claim: ReadyClaim }) {
  return (
    <li className="border-b border-base-300 last:border-b-0">
      <Link
        to={`/desk/${claim.number}`}
        className="grid grid-cols-[6rem_12rem_minmax(0,1fr)_minmax(0,18rem)_9rem] items-baseline gap-4 px-4 py-1.5 hover:bg-base-200"
      >
        <span className="font-mono">{claim.number}</span>
        <span className="truncate font-medium">{claim.claimant}</span>
        <span className="quiet truncate">{claim.purpose}</span>
        <span className="quiet truncate text-sm" title={claim.why ?? ''}>
          {claim.why ?? `cleared by ${claim.clearedBy}`}
        </span>
        <span className="text-right">
          <Money amount={claim.toPay} currency={claim.currency} strong />
        </span>
      </Link>
    </li>
  );
}

const GRID = 'grid grid-cols-[6.5rem_6rem_minmax(0,1fr)_9rem_9rem] gap-4 px-4';

function JournalList({ journals, any }: { journals: JournalHeader[]; any: boolean }) {
  const { list, current, setCurrent } = useRovingRows<HTMLOListElement>(journals.length);
  if (journals.length === 0 && !any)
    return <Empty title="No journal fits">Take a condition out, or show all journals.</Empty>;
  if (journals.length === 0)
    return (
      <Empty title="Nothing is posted yet">
        Clear a claim on the Desk; a controller posts it, and its journal appears here.
      </Empty>
    );
  return (
    <div className="border-y border-base-300 bg-base-100">
      <div aria-hidden className={`${GRID} quiet border-b border-base-300 py-1 text-xs`}>
        <span>Journal</span>
        <span>Date</span>
        <span>Of</span>
        <span>State</span>
        <span className="text-right">Total</span>
      </div>
      <ol ref={list} aria-label="Journals" className="rows">
        {journals.map((journal, index) => (
          <JournalItem
            key={journal.number}
            journal={journal}
            current={index === current}
            onFocus={() => setCurrent(index)}
          />
        ))}
      </ol>
    </div>
  );
}

interface JournalItemProps {
  journal: JournalHeader;
  current: boolean;
  onFocus: () => void;
}

function JournalItem({ journal, current, onFocus }: JournalItemProps) {
  return (
    <li>
      <Link
        data-row
        tabIndex={current ? 0 : -1}
        onFocus={onFocus}
        to={`/ledger/${journal.number}`}
        className={`${GRID} items-baseline border-b border-base-300 py-1.5 hover:bg-base-200 focus:bg-base-200`}
      >
        <span className="font-mono text-sm">{journal.number}</span>
        <span>{journal.date}</span>
        <span className="truncate">
          <span className="font-mono text-sm">{journal.claim ?? journal.source.id}</span> {journal.person}{' '}
          <span className="quiet">{journal.about}</span>
        </span>
        <span className="text-sm">{stateOf(journal)}</span>
        <span className="text-right">
          <Money amount={journal.total} currency={journal.currency} strong />
        </span>
      </Link>
    </li>
  );
}

const stateOf = (journal: JournalHeader): string =>
  journal.purpose === 'reversal'
    ? `reverses ${journal.reverses}`
    : journal.reversedBy
      ? `reversed by ${journal.reversedBy}`
      : journal.purpose === 'claim'
        ? 'posted'
        : journal.purpose;
