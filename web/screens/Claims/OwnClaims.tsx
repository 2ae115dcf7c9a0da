import { Link } from 'react-router';
import { useOwnClaims } from '../../api/claims.ts';
import { Money } from '../../parts/Money.tsx';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { TideBar } from '../../parts/TideBar.tsx';
import { useRovingRows } from '../../parts/useRovingRows.ts';

/** A person's own claims, newest first: what state each is in, and the money. */
export default function OwnClaims() {
  const { data, error, mutate } = useOwnClaims();
  const { list, current, setCurrent } = useRovingRows<HTMLUListElement>(data?.claims.length ?? 0);
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Loading shape="rows" />;
  return (
    <div>
      <h1 className="px-4 pt-3 pb-2 text-xl font-semibold">Your claims</h1>
      {data.claims.length === 0 ? (
        <Empty title="You have no claims">
          Claims you make, or that somebody makes for you, are listed here with where they are and what will be paid.
        </Empty>
      ) : (
        <ul ref={list} className="rows border-y border-base-300 bg-base-100">
          {data.claims.map((claim, index) => (
            <li key={claim.number}>
              <Link
                data-row
                tabIndex={index === current ? 0 : -1}
                onFocus={() => setCurrent(index)}
                to={`/claims/${claim.number}`}
                className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-2 hover:bg-base-200 sm:grid-cols-[minmax(0,1fr)_11rem_9rem]"
              >
                <span className="min-w-0">
                  <span className="font-mono text-sm">{claim.number}</span>
                  <span className="block truncate font-medium">{claim.purpose}</span>
                </span>
                <span className="order-last col-span-2 sm:order-none sm:col-span-1">
                  <TideBar pieces={claim.tide} />
                </span>
                <span className="text-right">
                  <Money amount={claim.toPay} currency={claim.currency} strong />
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
