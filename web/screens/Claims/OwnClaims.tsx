import { useState } from 'react';
import { useOwnClaims, type OwnClaimRow } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { OwnRecords, RecordWhat } from '../../parts/OwnRecords.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { BeginClaim } from './BeginClaim.tsx';

const NONE = {
  title: 'You have no claims',
  says: 'Claims you make, or that somebody makes for you, are listed here with where they are and what will be paid.',
};

/** A person's own claims, newest first. */
export default function OwnClaims() {
  const { data, error, mutate } = useOwnClaims();
  const [beginning, setBeginning] = useState(false);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <>
      <OwnRecords
        title="Your claims"
        begin={{ label: 'New claim', run: () => setBeginning(true) }}
        own={data.claims}
        none={NONE}
        pathOf={(claim) => `/claims/${claim.number}`}
        columns="sm:grid-cols-[minmax(0,1fr)_11rem_9rem]"
        render={(claim, whose) => <ClaimRow claim={claim} whose={whose} />}
      />
      {beginning && <BeginClaim onClose={() => setBeginning(false)} />}
    </>
  );
}

const ClaimRow = ({ claim, whose }: { claim: OwnClaimRow; whose: boolean }) => (
  <>
    <RecordWhat {...claim} claimant={whose ? claim.claimant : null} />
    <span className="order-last col-span-2 sm:order-none sm:col-span-1">
      <TideBar pieces={claim.tide} />
    </span>
    <span className="text-right">
      <Money amount={claim.toPay} currency={claim.currency} strong />
    </span>
  </>
);
