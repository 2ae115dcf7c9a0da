import { Link } from 'react-router';
import type { AdvanceAnswer } from '../../api/advances.ts';
import { Money } from '../../parts/Money.tsx';

/** The claims that are set against an advance, with what each takes of it. */
export function Uses({ view: { advance, uses } }: { view: AdvanceAnswer }) {
  if (uses.length === 0) return null;
  return (
    <section
      aria-label="Claims set against it"
      className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-3"
    >
      <h2 className="mb-1 font-semibold">Claims set against it</h2>
      <ul>
        {uses.map((u) => (
          <li
            key={u.claim}
            className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 py-1.5 last:border-b-0 sm:grid-cols-[6rem_minmax(0,1fr)_12rem_9rem]"
          >
            <Link className="link font-mono text-sm" to={`/claims/${u.claim}`}>
              {u.claim}
            </Link>
            <span className="truncate">{u.purpose}</span>
            <span className="quiet">{u.posted ? 'accounted for' : `${u.state}, not posted yet`}</span>
            <span className={u.posted ? '' : 'quiet'}>
              <Money amount={u.applied} currency={advance.currency} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
