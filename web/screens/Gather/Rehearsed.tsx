import { Money } from '../../parts/Money.tsx';
import type { Rehearsal } from './useStatementFiles.ts';

type Row = Rehearsal['first'][number];
const MOST_PROBLEMS = 20;

/** What the rows of a table would become: their sums on either side, their days, the first and the last, and what is wrong. */
export function Rehearsed({ rehearsal }: { rehearsal: Rehearsal }) {
  const { rows, entries, from, to, spent, cameBack, currency, first, last, problems } = rehearsal;
  return (
    <section className="mt-3" aria-label="What the rows become">
      <p role="status">
        Of {rows} rows {entries} would be taken{from && `, from ${from} to ${to}`}: spent{' '}
        <Money amount={spent} currency={currency} />, came back <Money amount={cameBack} currency={currency} />.
      </p>
      <table className="mt-2 w-full max-w-3xl text-sm">
        <thead className="quiet text-left">
          <tr>
            <th className="font-normal">Booked</th>
            <th className="font-normal">Merchant</th>
            <th className="font-normal">Reference</th>
            <th className="text-right font-normal">Charged</th>
            <th className="text-right font-normal">Spent</th>
          </tr>
        </thead>
        <tbody>
          {first.map((row, i) => (
            <RehearsedRow key={i} row={row} currency={currency} />
          ))}
          {entries > first.length + last.length && (
            <tr>
              <td colSpan={5} className="quiet">
                … {entries - first.length - last.length} more
              </td>
            </tr>
          )}
          {last.map((row, i) => (
            <RehearsedRow key={i} row={row} currency={currency} />
          ))}
        </tbody>
      </table>
      {problems.length > 0 && (
        <div className="mt-2 text-sm text-error">
          <p>{problems.length} rows would not be taken:</p>
          <ul className="list-disc pl-5">
            {problems.slice(0, MOST_PROBLEMS).map((p) => (
              <li key={p.line}>
                Line {p.line}: {p.says}
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function RehearsedRow({ row, currency }: { row: Row; currency: string }) {
  return (
    <tr className="border-t border-base-300">
      <td className="pr-4 whitespace-nowrap">{row.bookedOn}</td>
      <td className="max-w-72 truncate pr-4">
        <bdi>{row.merchant}</bdi>
      </td>
      <td className="quiet max-w-40 truncate pr-4 font-mono">{row.reference}</td>
      <td className="money pr-4">
        {row.charged && <Money amount={row.charged.amount} currency={row.charged.currency} />}
      </td>
      <td className="money">
        <Money amount={row.settled} currency={currency} />
      </td>
    </tr>
  );
}
