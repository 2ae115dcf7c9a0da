import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { AGES } from '../../../core/advances/standing.ts';
import { useRegister, type RegisterAnswer } from '../../api/advances.ts';
import { Empty, Loading, Trouble } from '../../parts/Notices.tsx';
import { todayHere } from '../../parts/today.ts';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { DayField } from '../../parts/days/DayField.tsx';

/** What is open of advances at the end of a day: by entity and age beside the account of the ledger, then one by one. */
export default function Register() {
  const [on, setOn] = useState(todayHere);
  const { data, error, mutate } = useRegister(on);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  return (
    <div className="mx-auto w-full max-w-7xl px-4 pb-10">
      <div className="flex flex-wrap items-center gap-3 pt-3 pb-2">
        <h1 className="flex items-center gap-2 text-xl font-semibold">
          <Link to="/advances" aria-label="Back to the advances">
            <ArrowLeft size={16} />
          </Link>
          Register of advances
        </h1>
        <label className="quiet ml-auto flex items-center gap-2 text-sm">
          At the end of
          <DayField className="input input-sm w-40" value={on} onChange={(day) => day && setOn(day)} />
        </label>
      </div>
      <ByEntity entities={data.entities} />
      {data.rows.length === 0 ? (
        <Empty title="Nothing was open on this day">
          Every advance that was paid out was accounted for or given back.
        </Empty>
      ) : (
        <OneByOne rows={data.rows} />
      )}
    </div>
  );
}

function ByEntity({ entities }: { entities: RegisterAnswer['entities'] }) {
  return (
    <div className="overflow-x-auto rounded-box border border-base-300 bg-base-100">
      <table className="table table-sm" aria-label="By entity and age">
        <thead className="text-base-content">
          <tr>
            <th>Entity</th>
            {AGES.map((age) => (
              <th key={age} className="text-right">
                {age} days
              </th>
            ))}
            <th className="text-right">Open</th>
            <th className="text-right">Account</th>
            <th>
              <span className="sr-only">Whether they agree</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {entities.map((e) => (
            <tr key={`${e.entity} ${e.account}`}>
              <td>
                {e.name} <span className="quiet">{e.currency}</span>
              </td>
              {e.ages.map(({ age, ledger }) => (
                <td key={age} className="money">
                  {/[1-9]/.test(ledger) ? groupDigits(ledger) : <span className="quiet">–</span>}
                </td>
              ))}
              <td className="money font-semibold">{groupDigits(e.open)}</td>
              <td className="money">
                <span className="quiet">{e.account}</span> {groupDigits(e.balance)}
              </td>
              <td>
                {e.open === e.balance ? (
                  <span className="quiet">agree</span>
                ) : (
                  <strong className="text-error">differ</strong>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function OneByOne({ rows }: { rows: RegisterAnswer['rows'] }) {
  return (
    <div className="mt-4 overflow-x-auto rounded-box border border-base-300 bg-base-100">
      <table className="table table-sm" aria-label="One by one">
        <thead className="text-base-content">
          <tr>
            <th>Person</th>
            <th>Advance</th>
            <th>Paid out</th>
            <th className="text-right">Days</th>
            <th>To be accounted for by</th>
            <th className="text-right">Open</th>
            <th className="text-right">In the ledger</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.number}>
              <td className="whitespace-nowrap">
                {r.person} <span className="quiet">{r.entity}</span>
              </td>
              <td className="max-w-80 truncate">
                <Link className="link font-mono" to={`/advances/${r.number}`}>
                  {r.number}
                </Link>{' '}
                {r.purpose}
              </td>
              <td className="whitespace-nowrap">{r.paidOn}</td>
              <td className="text-right tabular-nums">{r.days}</td>
              <td className="whitespace-nowrap">
                {r.dueBy} {r.overdue && <strong>overdue</strong>}
              </td>
              <td className="money whitespace-nowrap">
                {groupDigits(r.open!.amount)} <span className="quiet text-xs">{r.currency}</span>
              </td>
              <td className="money whitespace-nowrap">
                {groupDigits(r.open!.ledger)} <span className="quiet text-xs">{r.ledgerCurrency}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
