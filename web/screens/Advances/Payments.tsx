import { Link } from 'react-router';
import { advances, type AdvanceAnswer } from '../../api/advances.ts';
import { Attachments } from '../../parts/Attachments.tsx';
import { failed } from '../../parts/failed.ts';
import { Money } from '../../parts/Money.tsx';

interface PaymentsProps {
  view: AdvanceAnswer;
  onDone: (next: AdvanceAnswer) => void;
  onFail: () => void;
}

/** The payout and what was given back, each with what the bank moved, its journal and its proof. */
export function Payments({ view, onDone, onFail }: PaymentsProps) {
  const { advance, payments, may } = view;
  if (payments.length === 0) return null;
  const prove = (payment: string) => async (file: File) => {
    const next = await advances.prove(advance.number, advance.revision, payment, file).catch(failed);
    if (next) onDone(next);
    else onFail();
  };
  const mayProve = may.includes('addProof');
  return (
    <section
      aria-label="Paid out and given back"
      className="mt-3 rounded-box border border-base-300 bg-base-100 px-4 py-3"
    >
      <h2 className="mb-1 font-semibold">Paid out and given back</h2>
      <ul>
        {payments.map((p) => (
          <li
            key={p.id}
            className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-base-300 py-1.5 last:border-b-0 sm:grid-cols-[8rem_minmax(0,1fr)_9rem_9rem]"
          >
            <span>{p.kind === 'payout' ? 'Paid out' : 'Given back'}</span>
            <span className="order-last col-span-2 min-w-0 sm:order-none sm:col-span-1">
              <span className="block">
                {p.date}, {p.account} {p.accountName}
                {p.reference && <span className="quiet"> · {p.reference}</span>}
              </span>
              <span className="quiet block text-sm">
                posted as <JournalName journal={p.journal} link={mayProve} /> by {p.by}
              </span>
              {mayProve || p.proofs.length > 0 ? (
                <Attachments
                  of="the proof"
                  attachments={p.proofs}
                  onAdd={mayProve ? (f) => void prove(p.id)(f) : undefined}
                />
              ) : (
                <span className="quiet text-sm">no proof yet</span>
              )}
            </span>
            <Money amount={p.amount} currency={advance.currency} />
            {advance.currency !== advance.ledgerCurrency && (
              <span className="col-start-2 text-right sm:col-start-auto">
                <Money amount={p.bank} currency={advance.ledgerCurrency} />
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Who may look at the ledger gets a way there. */
const JournalName = ({ journal, link }: { journal: string; link: boolean }) =>
  link ? (
    <Link className="link" to={`/ledger/${journal}`}>
      {journal}
    </Link>
  ) : (
    journal
  );
