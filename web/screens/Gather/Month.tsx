import { ArrowLeft } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { gather, useMonth, type MonthView } from '../../api/gather.ts';
import { Money } from '../../parts/Money.tsx';
import { groupDigits } from '../../../core/numbers/groupDigits.ts';
import { Loading, Trouble } from '../../parts/Notices.tsx';
import { toast } from '../../parts/toast.tsx';
import { Where } from './Charges.tsx';
import { failed } from '../../parts/failed.ts';

/** A card's month: the proof that charges and statements agree, and where each charge went. */
export function Month() {
  const { card = '', month = '' } = useParams();
  const { data, error, mutate } = useMonth(card, month);
  if (!data) return error ? <Trouble error={error} retry={() => void mutate()} /> : <Loading shape="rows" />;
  const close = async (closed: boolean, revision: number): Promise<void> => {
    const answer = await (closed ? gather.closeMonth : gather.reopenMonth)(card, month, revision).catch(failed);
    if (!answer) return;
    void mutate(answer, false);
    if (!closed) return toast({ text: 'The month is open again' });
    toast({ text: 'The month is closed', act: { label: 'Undo', run: () => void close(false, answer.revision) } });
  };
  return (
    <div className="w-full flex-1 p-3 sm:p-4">
      <MonthHead card={data.card} id={card} month={month} />
      <p className="quiet text-sm">
        {data.card.holder} ·{' '}
        {data.card.kind === 'purchasing'
          ? 'purchasing card: paid by the foundation, nothing is due to the holder'
          : 'company card'}{' '}
        · {data.days.from} to {data.days.to}
      </p>
      <div className="mt-3 grid gap-4 lg:grid-cols-2">
        <Proof data={data} onClose={(closed) => void close(closed, data.revision)} />
        <StatementList data={data} />
      </div>
      <h2 className="mt-5 mb-1 font-semibold">Charges</h2>
      <ul aria-label="Charges of the month" className="rows rounded-box border border-base-300 bg-base-100">
        {data.charges.map((c) => (
          <ChargeRow key={c.id} charge={c} />
        ))}
      </ul>
    </div>
  );
}

function MonthHead({ card, id, month }: { card: MonthView['card']; id: string; month: string }) {
  return (
    <h1 className="flex items-center gap-2 text-xl font-semibold">
      <Link to="/gather/cards" aria-label="Back to the cards">
        <ArrowLeft size={16} />
      </Link>
      {card.label} <span className="font-mono text-base">{id}</span> {month}
    </h1>
  );
}

function ChargeRow({ charge: c }: { charge: MonthView['charges'][number] }) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 px-3 py-1.5 last:border-b-0 sm:grid-cols-[6.5rem_minmax(0,1fr)_minmax(0,14rem)_9rem]">
      <span className="quiet text-sm">{c.bookedOn}</span>
      <bdi className="col-start-1 row-start-1 truncate sm:col-start-auto sm:row-start-auto">{c.merchant}</bdi>
      <span className="text-sm">
        <Where charge={c} />
      </span>
      <span className="col-start-2 row-start-1 text-right sm:col-start-auto sm:row-start-auto">
        <Money amount={c.settled.amount} currency={c.settled.currency} />
      </span>
    </li>
  );
}

function Proof({ data, onClose }: { data: MonthView; onClose: (closed: boolean) => void }) {
  const { proof, card } = data;
  return (
    <section aria-label="Proof" className="rounded-box border border-base-300 bg-base-100 p-4">
      <Sums proof={proof} currency={card.currency} />
      <p className="mt-2 text-sm">
        {proof.accounted.count} charges over {groupDigits(proof.accounted.amount)} are accounted for;{' '}
        <span className={proof.open.count ? 'text-error' : ''}>
          {proof.open.count} over {groupDigits(proof.open.amount)} are not
        </span>
        .
      </p>
      {proof.problems.length > 0 && (
        <ul className="mt-1 list-inside list-disc text-sm">
          {proof.problems.map((p) => (
            <li key={p}>{p}</li>
          ))}
        </ul>
      )}
      <Closing data={data} onClose={onClose} />
    </section>
  );
}

const rowsOf = (proof: MonthView['proof']): [string, string | null, string?][] => [
  ['Opening balance', proof.opening],
  ['− spent', proof.spent],
  ['Closing balance, by the statements', proof.closing],
  [
    'Difference',
    proof.difference,
    proof.difference !== null && /[1-9]/.test(proof.difference) ? 'text-error font-semibold' : '',
  ],
];

function Sums({ proof, currency }: { proof: MonthView['proof']; currency: string }) {
  return (
    <dl className="grid grid-cols-[1fr_auto] gap-y-0.5">
      {rowsOf(proof).map(([name, amount, tone]) => (
        <div key={name} className="contents">
          <dt className={name === 'Difference' ? 'border-t border-base-300' : 'quiet'}>{name}</dt>
          <dd className={`money ${name === 'Difference' ? 'border-t border-base-300' : ''} ${tone ?? ''}`}>
            {amount === null ? '–' : groupDigits(amount)} <span className="quiet text-sm">{currency}</span>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Closing({ data, onClose }: { data: MonthView; onClose: (closed: boolean) => void }) {
  return (
    <div className="mt-3 flex items-center gap-3">
      {data.state === 'closed' ? (
        <>
          <span>Closed by {data.closedBy}.</span>
          {data.may.includes('reopen') && (
            <button type="button" className="btn btn-sm" onClick={() => onClose(false)}>
              Open again
            </button>
          )}
        </>
      ) : !data.may.includes('close') ? (
        <span className="quiet text-sm">Finance closes the month once everything is accounted for.</span>
      ) : (
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={data.proof.problems.length > 0}
          onClick={() => onClose(true)}
        >
          Close the month
        </button>
      )}
    </div>
  );
}

const SHOWN = 8;
function StatementList({ data }: { data: MonthView }) {
  const { statements } = data;
  return (
    <section aria-label="Statements of the month" className="rounded-box border border-base-300 bg-base-100 p-4">
      <h2 className="font-semibold">
        Statements <span className="quiet font-normal">{statements.length}</span>
      </h2>
      <table className="mt-1 w-full text-sm">
        <tbody>
          {statements.slice(-SHOWN).map((s) => (
            <tr key={s.id} className="border-t border-base-300">
              <td className="py-0.5">{s.from === s.to ? s.from : `${s.from} to ${s.to}`}</td>
              <td className="quiet">{s.source === 'feed' ? 'feed' : 'file'}</td>
              <td className="money">{groupDigits(s.opening)}</td>
              <td className="money pl-2">→ {groupDigits(s.closing)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {statements.length > SHOWN && <p className="quiet mt-1 text-sm">and {statements.length - SHOWN} before them</p>}
      {statements.length === 0 && <p className="quiet text-sm">None covers this month yet.</p>}
    </section>
  );
}
