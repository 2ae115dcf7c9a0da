import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { OwnFilter } from '../../../contract/claims.ts';
import { fitsOwn } from '../../../contract/fitsOwn.ts';
import { useOwnClaims, type OwnClaimRow } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { OwnRecords, whatColumn } from '../../parts/OwnRecords.tsx';
import type { Column } from '../../parts/table/columns.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { BeginClaim } from './BeginClaim.tsx';
import { ownSections, sayToDo, sayWaits, yearsOf } from './ownSections.ts';

const NONE = {
  title: 'You have no claims',
  says: 'Claims you make, or that somebody makes for you, are listed here with where they are and what will be paid.',
};
const NOT_FOUND = {
  title: 'None of your claims fits',
  says: 'Try a part of the number or of the purpose, or any year.',
};

/** A person's own claims: what asks something of them first. What they are narrowed to stands in the address. */
export default function OwnClaims() {
  const { data, error, mutate } = useOwnClaims();
  const [beginning, setBeginning] = useState(false);
  const [params, setParams] = useSearchParams();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const filter: OwnFilter = { q: params.get('q') ?? '', year: params.get('year') ?? '' };
  const change = (next: OwnFilter) => setParams(written(next), { replace: true });
  return (
    <>
      <OwnRecords
        title="Your claims"
        begin={{ label: 'New claim', run: () => setBeginning(true) }}
        tools={data.claims.length > 0 && <Tools filter={filter} years={yearsOf(data.claims)} onChange={change} />}
        sections={ownSections(data.claims.filter((claim) => fitsOwn(claim, filter)))}
        none={data.claims.length > 0 ? NOT_FOUND : NONE}
        pathOf={(claim) => `/claims/${claim.number}`}
        columnsOf={() => COLUMNS}
      />
      {beginning && <BeginClaim onClose={() => setBeginning(false)} />}
    </>
  );
}

const written = (filter: OwnFilter) => Object.fromEntries(Object.entries(filter).filter(([, value]) => value !== ''));

interface ToolsProps {
  filter: OwnFilter;
  years: readonly string[];
  onChange: (filter: OwnFilter) => void;
}

const Tools = ({ filter, years, onChange }: ToolsProps) => (
  <search className="ml-auto flex flex-wrap items-center gap-3 text-sm">
    <a className="link" href={`/api/claims/own.csv?${new URLSearchParams(written(filter))}`} download>
      CSV
    </a>
    <select
      className="select select-sm w-auto"
      aria-label="Year"
      value={filter.year}
      onChange={(e) => onChange({ ...filter, year: e.target.value })}
    >
      <option value="">any year</option>
      {years.map((year) => (
        <option key={year}>{year}</option>
      ))}
    </select>
    <input
      type="search"
      className="input input-sm w-56"
      placeholder="Number or purpose"
      aria-label="Find among your claims"
      value={filter.q}
      onChange={(e) => onChange({ ...filter, q: e.target.value })}
    />
  </search>
);

const COLUMNS: readonly Column<OwnClaimRow>[] = [
  whatColumn<OwnClaimRow>(() => null),
  {
    id: 'submitted',
    header: 'Submitted',
    size: 110,
    meta: { narrow: 'out', className: 'quiet text-sm' },
    cell: ({ row }) => row.original.submittedOn,
  },
  {
    id: 'where',
    header: 'Where it is',
    size: 230,
    meta: { narrow: 'below' },
    cell: ({ row: { original: claim } }) => (
      <>
        {sayToDo(claim) && <strong className="block text-sm font-semibold">{sayToDo(claim)}</strong>}
        {claim.state !== 'draft' && <TideBar pieces={claim.tide} />}
        {sayWaits(claim) && <span className="quiet block truncate text-xs">{sayWaits(claim)}</span>}
      </>
    ),
  },
  {
    id: 'pay',
    header: 'To pay',
    size: 140,
    meta: { right: true },
    cell: ({ row: { original: claim } }) => <Money amount={claim.toPay} currency={claim.currency} strong />,
  },
];
