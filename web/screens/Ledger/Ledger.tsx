import { Download } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { fromMinor, toMinor } from '../../../core/numbers/amount.ts';
import { groupBy } from '../../../core/numbers/groupBy.ts';
import { useJournals, useReady, type JournalHeader, type ReadyClaim } from '../../api/journals.ts';
import type { Person } from '../../api/session.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { Money } from '../../parts/Money.tsx';
import { JournalFilter, NO_WISHES } from './JournalFilter.tsx';
import type { Column } from '../../parts/table/columns.tsx';
import { Table } from '../../parts/table/Table.tsx';

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
      {data && data.claims.length > 0 && (
        <Table
          label="Ready to post"
          rows={data.claims}
          columns={READY}
          keyOf={(claim) => claim.number}
          pathOf={(claim) => `/desk/${claim.number}`}
          className="border-t border-base-300 bg-base-100"
        />
      )}
    </section>
  );
}

const READY: readonly Column<ReadyClaim>[] = [
  {
    id: 'claim',
    header: 'Claim',
    size: 100,
    meta: { leads: true },
    cell: ({ row }) => <span className="font-mono">{row.original.number}</span>,
  },
  { id: 'claimant', header: 'Claimant', size: 190, cell: ({ row }) => row.original.claimant },
  {
    id: 'purpose',
    header: 'Purpose',
    meta: { narrow: 'below' },
    cell: ({ row }) => <span className="quiet block truncate">{row.original.purpose}</span>,
  },
  {
    id: 'cleared',
    header: 'Cleared',
    size: 270,
    meta: { narrow: 'below' },
    cell: ({ row: { original: claim } }) => (
      <span className="quiet block truncate text-sm" title={claim.why ?? ''}>
        {claim.why ?? `by ${claim.clearedBy}`}
      </span>
    ),
  },
  {
    id: 'pay',
    header: 'To pay',
    size: 140,
    meta: { right: true },
    cell: ({ row }) => <Money amount={row.original.toPay} currency={row.original.currency} strong />,
  },
];

function JournalList({ journals, any }: { journals: JournalHeader[]; any: boolean }) {
  if (journals.length === 0 && !any)
    return <Empty title="No journal fits">Take a condition out, or show all journals.</Empty>;
  if (journals.length === 0)
    return (
      <Empty title="Nothing is posted yet">
        Clear a claim on the Desk; a controller posts it, and its journal appears here.
      </Empty>
    );
  return (
    <Table
      label="Journals"
      rows={journals}
      columns={JOURNALS}
      keyOf={(journal) => journal.number}
      pathOf={(journal) => `/ledger/${journal.number}`}
      className="border-t border-base-300 bg-base-100"
    />
  );
}

const JOURNALS: readonly Column<JournalHeader>[] = [
  {
    id: 'journal',
    header: 'Journal',
    size: 110,
    meta: { leads: true },
    cell: ({ row }) => <span className="font-mono text-sm">{row.original.number}</span>,
  },
  { id: 'date', header: 'Date', size: 100, cell: ({ row }) => row.original.date },
  {
    id: 'of',
    header: 'Of',
    meta: { narrow: 'below' },
    cell: ({ row: { original: journal } }) => (
      <span className="block truncate">
        <span className="font-mono text-sm">{journal.claim ?? journal.source.id}</span> {journal.person}{' '}
        <span className="quiet">{journal.about}</span>
      </span>
    ),
  },
  {
    id: 'state',
    header: 'State',
    size: 170,
    meta: { narrow: 'below' },
    cell: ({ row }) => <span className="text-sm">{stateOf(row.original)}</span>,
  },
  {
    id: 'total',
    header: 'Total',
    size: 150,
    meta: { right: true },
    cell: ({ row }) => <Money amount={row.original.total} currency={row.original.currency} strong />,
  },
];

const stateOf = (journal: JournalHeader): string =>
  journal.purpose === 'reversal'
    ? `reverses ${journal.reverses}`
    : journal.reversedBy
      ? `reversed by ${journal.reversedBy}`
      : journal.purpose === 'claim'
        ? 'posted'
        : journal.purpose;
