import { useState } from 'react';
import { useOwnClaims, type OwnClaimRow } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { OwnRecords, RecordWhat } from '../../parts/OwnRecords.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { BeginClaim } from './BeginClaim.tsx';
import { ownSections, sayToDo } from './ownSections.ts';

const NONE = {
  title: 'You have no claims',
  says: 'Claims you make, or that somebody makes for you, are listed here with where they are and what will be paid.',
};

/** A person's own claims: what asks something of them first. */
export default function OwnClaims() {
  const { data, error, mutate } = useOwnClaims();
  const [beginning, setBeginning] = useState(false);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <>
      <OwnRecords
        title="Your claims"
        begin={{ label: 'New claim', run: () => setBeginning(true) }}
        sections={ownSections(data.claims)}
        none={NONE}
        pathOf={(claim) => `/claims/${claim.number}`}
        columns="sm:grid-cols-[minmax(0,1fr)_11rem_9rem]"
        render={(claim) => <ClaimRow claim={claim} />}
      />
      {beginning && <BeginClaim onClose={() => setBeginning(false)} />}
    </>
  );
}

const ClaimRow = ({ claim }: { claim: OwnClaimRow }) => (
  <>
    <RecordWhat {...claim} claimant={null} />
    <span className="order-last col-span-2 sm:order-none sm:col-span-1">
      {sayToDo(claim) && <strong className="block text-sm font-semibold">{sayToDo(claim)}</strong>}
      {claim.state !== 'draft' && <TideBar pieces={claim.tide} />}
    </span>
    <span className="text-right">
      <Money amount={claim.toPay} currency={claim.currency} strong />
    </span>
  </>
);
