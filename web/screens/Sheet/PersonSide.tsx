import { Link } from 'react-router';
import { usePerson } from '../../api/beside.ts';
import { useChart } from '../../api/chart.ts';
import { Money } from '../../parts/Money.tsx';
import { Loading, Trouble } from '../../parts/Notices.tsx';

/** What this claimant claimed within a year, how often it went back, what is open, and earlier lines at the same merchants. */
export function PersonSide({ number }: { number: string }) {
  const { data, error, mutate } = usePerson(number);
  const { data: chart } = useChart();
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const nameOf = (id: string) => chart?.categories.find((c) => c.id === id)?.name ?? id;
  return (
    <section aria-label="Person" className="grid gap-4 p-4 text-sm">
      <p>
        <strong>{data.name}</strong> handed in {data.claims} {data.claims === 1 ? 'claim' : 'claims'} since {data.since}
        ; {data.returned === 0 ? 'none went back' : `${data.returned} went back`}.
      </p>
      <Rows title={`By category, in ${data.currency}`} none="Nothing in this time.">
        {data.spent.map((s) => (
          <tr key={s.category} className="border-t border-base-300">
            <td className="py-0.5">{nameOf(s.category)}</td>
            <td className="quiet px-2 text-right">
              {s.lines} {s.lines === 1 ? 'line' : 'lines'}
            </td>
            <td className="text-right">
              <Money amount={s.amount} />
            </td>
          </tr>
        ))}
      </Rows>
      <Rows title="Advances something is open of" none="None.">
        {data.advances.map((a) => (
          <tr key={a.id} className="border-t border-base-300">
            <td className="py-0.5">
              <Link className="link" to={`/advances/${a.id}`}>
                {a.id}
              </Link>{' '}
              {a.purpose}
            </td>
            <td className="quiet px-2">{a.dueBy && `due ${a.dueBy}`}</td>
            <td className="text-right">
              <Money amount={a.open} currency={a.currency} />
            </td>
          </tr>
        ))}
      </Rows>
      <Rows title="Other claims at the same merchants, the newest first" none="None.">
        {data.sameMerchants.map((m) => (
          <tr key={`${m.claim}/${m.line}`} className="border-t border-base-300">
            <td className="py-0.5">
              <Link className="link font-mono" to={`/desk/${m.claim}`}>
                {m.claim}
              </Link>{' '}
              {m.date} {m.merchant}
            </td>
            <td className="quiet px-2">{m.state}</td>
            <td className="text-right">
              <Money amount={m.amount} currency={m.currency} />
            </td>
          </tr>
        ))}
      </Rows>
    </section>
  );
}

/** A small table under a title, or a word where there is nothing. */
export function Rows({ title, none, children }: { title: string; none: string; children: React.ReactNode[] }) {
  return (
    <div>
      <h3 className="mb-0.5 font-semibold">{title}</h3>
      {children.length === 0 ? (
        <p className="quiet">{none}</p>
      ) : (
        <table className="w-full">
          <tbody>{children}</tbody>
        </table>
      )}
    </div>
  );
}
