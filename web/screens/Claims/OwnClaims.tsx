import { useState } from 'react';
import { Link } from 'react-router';
import { useOwnClaims, type OwnClaimRow } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { BeginClaim } from './BeginClaim.tsx';
import { useRovingRows } from '../../parts/useRovingRows.ts';

/** A person's own claims, newest first, and those that wait for their decision. */
export default function OwnClaims() {
  const { data, error, mutate } = useOwnClaims();
  const [beginning, setBeginning] = useState(false);
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Loading shape="rows" />;
  return (
    <div>
      {data.toDecide.length > 0 && (
        <section aria-labelledby="to-decide">
          <h2 id="to-decide" className="px-4 pt-3 pb-2 text-xl font-semibold">
            Waiting for your decision
          </h2>
          <ClaimList claims={data.toDecide} whose />
        </section>
      )}
      <div className="flex items-center gap-3 px-4 pt-3 pb-2">
        <h1 className="text-xl font-semibold">Your claims</h1>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => setBeginning(true)}>
          New claim
        </button>
      </div>
      {beginning && <BeginClaim onClose={() => setBeginning(false)} />}
      {data.claims.length === 0 ? (
        <Empty title="You have no claims">
          Claims you make, or that somebody makes for you, are listed here with where they are and what will be paid.
        </Empty>
      ) : (
        <ClaimList claims={data.claims} />
      )}
    </div>
  );
}

function ClaimList({ claims, whose = false }: { claims: readonly OwnClaimRow[]; whose?: boolean }) {
  const { list, current, setCurrent } = useRovingRows<HTMLUListElement>(claims.length);
  return (
    <ul ref={list} className="rows border-y border-base-300 bg-base-100">
      {claims.map((claim, index) => (
        <li key={claim.number}>
          <ClaimRow
            claim={claim}
            whose={whose}
            tabIndex={index === current ? 0 : -1}
            onFocus={() => setCurrent(index)}
          />
        </li>
      ))}
    </ul>
  );
}

interface ClaimRowProps {
  claim: OwnClaimRow;
  /** Whether the row says whose claim it is. */
  whose: boolean;
  tabIndex: number;
  onFocus: () => void;
}

const ClaimRow = ({ claim, whose, ...focus }: ClaimRowProps) => (
  <Link
    data-row
    {...focus}
    to={`/claims/${claim.number}`}
    className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-2 hover:bg-base-200 sm:grid-cols-[minmax(0,1fr)_11rem_9rem]"
  >
    <span className="min-w-0">
      <span className="font-mono text-sm">{claim.number}</span>
      {whose && <span className="ml-2">{claim.claimant}</span>}
      <span className="block truncate font-medium">{claim.purpose}</span>
    </span>
    <span className="order-last col-span-2 sm:order-none sm:col-span-1">
      <TideBar pieces={claim.tide} />
    </span>
    <span className="text-right">
      <Money amount={claim.toPay} currency={claim.currency} strong />
    </span>
  </Link>
);
